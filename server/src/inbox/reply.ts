import type { Deed, DeedDone, Member } from '@porch/contract/team';
import type { Happening } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import { type ConversationRecord, type Store, toRow } from '../store';
import type { Write, Written } from './batch';
import type { Record } from './record';
import { isSameDeed } from './same';
import { takeWords } from './words';

/** The longest that a conversation may be put by. */
export const PUT_BY_LONGEST_MS = 366 * 24 * 3_600_000;

/** The only way out: whatever the team does in a conversation becomes entries here. */
export const createReply = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  write: Write;
  hub: Hub;
}) => {
  const { store, clock, record, write, hub } = services;

  const checkedTime = (until: number): number => {
    const aheadMs = until - clock.now();
    if (aheadMs <= 0) throw new Refused('time-not-ahead', { field: 'until' });
    if (aheadMs > PUT_BY_LONGEST_MS) {
      throw new Refused('bad-request', { field: 'until', limit: PUT_BY_LONGEST_MS });
    }
    return until;
  };

  /** What a deed comes to; null when it would change nothing. */
  const happeningOf = (
    deed: Deed,
    member: Member,
    { id, state }: ConversationRecord,
  ): Happening | null => {
    const by = { memberId: member.id };
    switch (deed.do) {
      case 'say':
        return {
          kind: 'team-said',
          ...by,
          ...takeWords(store, deed, id, (file) => file.memberId !== null),
        };
      case 'read': {
        const upTo = Math.min(deed.upTo, state.saidSeq);
        return upTo > state.teamReadSeq ? { kind: 'team-read', ...by, upTo } : null;
      }
      case 'wrap-up':
        return state.aside === 'wrapped-up' ? null : { kind: 'wrapped-up', ...by };
      case 'put-by':
        return { kind: 'put-by', ...by, until: checkedTime(deed.until) };
      case 'take-back':
        return state.aside === null ? null : { kind: 'taken-back', ...by };
    }
  };

  const deed = (conversationId: string, what: Deed, member: Member): Written<DeedDone> => {
    const conversation = store.conversations.byId(conversationId);
    if (!conversation) throw new Refused('not-found');
    const done = store.entries.byId(conversationId, what.id);
    if (done && !isSameDeed(done, what, member.id)) throw new Refused('id-taken');
    const happening = done ? null : happeningOf(what, member, conversation);
    if (!happening) {
      return { result: { entries: done ? [done] : [], row: toRow(conversation) }, news: [] };
    }
    const news = record(conversation, [{ id: what.id, happening }]);
    return { result: { entries: news.entries, row: news.row }, news: [news] };
  };

  return {
    /** Does something in a conversation for a member. The same deed id twice is once. */
    deed: async (conversationId: string, what: Deed, member: Member): Promise<DeedDone> => {
      const done = await write(() => deed(conversationId, what, member));
      if (what.do === 'say' && !store.ticks.has('answered')) {
        store.ticks.set('answered', clock.now());
        hub.tellHouse();
      }
      return done;
    },
    /** Brings back whatever was put by until now. */
    returnDue: (): Promise<number> =>
      write(() => {
        const due = store.conversations.putByDue(clock.now());
        const news = due.map((one) =>
          record(one, [{ id: newId(), happening: { kind: 'returned' } }]),
        );
        return { result: news.length, news };
      }),
  };
};

export type Reply = ReturnType<typeof createReply>;
