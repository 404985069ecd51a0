import type { Hub, News } from '../live/hub';
import type { Store } from '../store';

/** How far visitors' messages have come on the team's side: on a device, and read. */
export const createReach = ({ store, hub }: { store: Store; hub: Hub }) => {
  let hasSeq = store.business.teamHasSeq();
  let keptSeq = hasSeq;
  // Visitors whose newest message has not reached a device yet, so that each is told just once.
  const onTheWay = new Map<string, { seq: number; readSeq: number }>();

  const note = ({ writer, state: { teamReadSeq }, entries }: News['told'][number]): void => {
    const said = entries.filter((entry) => entry.kind === 'visitor-said');
    const last = said[said.length - 1];
    if (last && hub.isHere(writer)) {
      onTheWay.set(writer, { seq: last.seq, readSeq: teamReadSeq });
    }
    const hasRead = entries.some(({ kind }) => kind === 'team-read' || kind === 'team-said');
    if (hasRead) hub.tellReached(writer, { hasSeq, readSeq: teamReadSeq });
  };

  return {
    hasSeq: (): number => hasSeq,
    note: (news: readonly News[]): void => {
      for (const { told } of news) for (const one of told) note(one);
    },
    /** A device of the team says up to where it has got everything. */
    teamHas: (seq: number): void => {
      if (seq <= hasSeq || seq > store.entries.newestSeq()) return;
      hasSeq = seq;
      for (const [writer, waiting] of onTheWay) {
        if (waiting.seq > seq) continue;
        onTheWay.delete(writer);
        hub.tellReached(writer, { hasSeq, readSeq: waiting.readSeq });
      }
    },
    /** Keeps the mark over a restart; it is told again by the next device anyway. */
    keep: (): void => {
      if (hasSeq === keptSeq) return;
      store.business.setTeamHasSeq(hasSeq);
      keptSeq = hasSeq;
    },
  };
};

export type Reach = ReturnType<typeof createReach>;
