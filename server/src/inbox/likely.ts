import type { Alike } from '@porch/contract/line';
import { byLikeness, type Likeness } from '@porch/core/likeness';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { type Store, toRow } from '../store';
import type { Change } from './batch';
import type { Persons } from './persons';

/** So many are proposed; somebody who is like more people than that is like nobody in particular. */
const PROPOSED_MOST = 5;
const FOUND_MOST = 20;

/** Who may be the same person, and why. Nobody is joined by it: that is for somebody to say. */
export const createLikely = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  persons: Pick<Persons, 'standing'>;
}) => {
  const { store, clock, change, persons } = services;

  const threadsLike = (threadId: string): (readonly [string, Likeness])[] => {
    const ways = store.ways
      .of(threadId)
      .flatMap(({ kind, key }) =>
        kind === 'email' || kind === 'phone'
          ? store.ways.by(kind, key, FOUND_MOST).map((way) => [way.threadId, kind] as const)
          : [],
      );
    const { devices, names } = store.likeness;
    return [
      ...ways,
      ...devices.alike(threadId).map((id) => [id, 'device'] as const),
      ...names.alike(threadId).map((id) => [id, 'name'] as const),
    ];
  };

  return {
    of: (conversationId: string): Alike[] => {
      const conversation = persons.standing(conversationId);
      if (!conversation) throw new Refused('not-found');
      const reasons = new Map<string, Set<Likeness>>();
      for (const { threadId } of conversation.threads) {
        for (const [other, reason] of threadsLike(threadId)) {
          const talk = persons.standing(other);
          if (!talk || talk.id === conversation.id) continue;
          if (store.likeness.notSame.isSaid(conversation.id, talk.id)) continue;
          reasons.set(talk.id, (reasons.get(talk.id) ?? new Set()).add(reason));
        }
      }
      const found = [...reasons].flatMap(([id, why]): Alike[] => {
        const talk = store.conversations.byId(id);
        return talk ? [{ row: toRow(talk), reasons: [...why] }] : [];
      });
      return byLikeness(found).slice(0, PROPOSED_MOST);
    },
    /** Somebody says that they are two people. */
    notSame: (conversationId: string, otherId: string): void => {
      const [one, other] = [persons.standing(conversationId), persons.standing(otherId)];
      if (!one || !other) throw new Refused('not-found');
      change(() => store.likeness.notSame.say(one.id, other.id, clock.now()));
    },
  };
};

export type Likely = ReturnType<typeof createLikely>;
