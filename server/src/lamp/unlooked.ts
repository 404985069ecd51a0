import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import type { ConversationRecord, Store } from '../store';

/** So many of those who wait longest are looked at; behind them nobody is later. */
const LOOKED_AT_MOST = 20;

/** Who waits past their patience, and nobody of the team has seen it. */
export const createUnlooked = (services: {
  store: Store;
  clock: Clock;
  hub: Pick<Hub, 'lookingAt'>;
}) => {
  const { store, clock, hub } = services;

  /** Whether somebody of the team has seen anything of it since it began to wait. */
  const isLookedAt = ({ id, state }: ConversationRecord): boolean => {
    if (hub.lookingAt(id).length > 0) return true;
    const read = state.teamReadSeq > 0 ? store.entries.bySeq(state.teamReadSeq) : null;
    return read !== null && read.at >= (state.waitingSince ?? 0);
  };

  const isLate = (conversation: ConversationRecord): boolean =>
    conversation.dueAt !== null && conversation.dueAt <= clock.now() && !isLookedAt(conversation);

  return {
    isLate,
    /** Whoever waits longest first. */
    all: (): ConversationRecord[] =>
      store.conversations.page('waiting', null, LOOKED_AT_MOST).filter(isLate),
  };
};

export type Unlooked = ReturnType<typeof createUnlooked>;
