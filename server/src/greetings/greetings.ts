import type { Entry, ThreadState } from '@porch/core/conversation';
import { FIRST_HELLO } from '@porch/core/greetings';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import type { Follow, Recording } from '../inbox/record';
import { newId } from '../security/tokens';
import { ANOTHER_VISIT_MS } from '../signs/signs';
import type { GreetingCount, Store } from '../store';

/** What a visitor says beside their first words: which greeting they had seen, and whether they only try it. */
export interface Greeted {
  greeted?: string;
  isTrial?: boolean;
}

const LOOKED_BACK_MOST = 20;

const isSaid = ({ kind }: Entry): boolean =>
  kind === 'visitor-said' || kind === 'team-said' || kind === 'door-sign';

/** Greetings that are said before anybody writes, and the first hello: what is noted of them, and what came of them. */
export const createGreetings = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'greetingOf' | 'published'>;
}) => {
  const { store, clock, dressing } = services;
  // Counted here and written now and then: a page of a website that many look at costs no transaction each time.
  const fresh = new Map<string, GreetingCount & { doorId: string }>();

  /** Whether somebody goes on writing right after the first hello. */
  const answersHello = (threadId: string, seq: number): boolean => {
    const before = store.entries.threadBefore(threadId, seq, LOOKED_BACK_MOST).findLast(isSaid);
    return before?.kind === 'door-sign' && before.isHello === true && !before.isTried;
  };

  /** What an entry adds to what is counted of a greeting; null: nothing. */
  const countOf = (entry: Entry): GreetingCount | null => {
    if (entry.kind === 'door-sign' && !entry.isTried) {
      if (entry.greeting) return { greetingId: entry.greeting.id, seen: 0, answered: 1 };
      return entry.isHello ? { greetingId: FIRST_HELLO, seen: 1, answered: 0 } : null;
    }
    if (entry.kind !== 'visitor-said' || entry.tapped || entry.threadId === null) return null;
    const { threadId, seq } = entry;
    return answersHello(threadId, seq) ? { greetingId: FIRST_HELLO, seen: 0, answered: 1 } : null;
  };

  const follow: Follow = (_was, conversation, entries) => {
    for (const entry of entries) {
      const count = countOf(entry);
      const thread = conversation.threads.find((one) => one.threadId === entry.threadId);
      if (count && thread) store.greetings.count(thread.doorId, count);
    }
    return [];
  };

  return {
    follow,
    /** What is noted before the first words of a visit: the greeting that they answer, in its own words. */
    before: (
      doorId: string,
      known: ThreadState | null,
      { greeted, isTrial }: Greeted,
    ): Recording[] => {
      const greeting = greeted === undefined ? null : dressing.greetingOf(doorId, greeted);
      if (!greeting) return [];
      const last = known && store.entries.bySeq(known.saidSeq);
      if (last && clock.now() - last.at < ANOTHER_VISIT_MS) return [];
      const { id, memberId, text } = greeting;
      const isTried = isTrial ? { isTried: true } : {};
      const said = { kind: 'door-sign' as const, text, until: null, ...isTried };
      return [{ id: newId(), happening: { ...said, greeting: { id, memberId } } }];
    },
    /** A page says that somebody has seen a greeting. What no door says now is not counted. */
    seen: (doorId: string, greetingId: string): void => {
      const { greetings } = dressing.published(doorId);
      if (!greetings.some(({ id, isOn }) => id === greetingId && isOn)) return;
      const key = `${doorId} ${greetingId}`;
      const before = fresh.get(key)?.seen ?? 0;
      fresh.set(key, { doorId, greetingId, seen: before + 1, answered: 0 });
    },
    /** How often each greeting of a door was seen, and how often it was answered. */
    counts: (doorId: string): GreetingCount[] => {
      const counts = new Map(store.greetings.counts(doorId).map((one) => [one.greetingId, one]));
      for (const one of fresh.values()) {
        if (one.doorId !== doorId) continue;
        const { greetingId } = one;
        const { seen, answered } = counts.get(greetingId) ?? { seen: 0, answered: 0 };
        counts.set(greetingId, { greetingId, seen: seen + one.seen, answered });
      }
      return [...counts.values()];
    },
    /** Writes down what was counted meanwhile. It is no news to anybody. */
    tick: (): void => {
      if (fresh.size === 0) return;
      store.atOnce(() => {
        for (const { doorId, ...count } of fresh.values()) store.greetings.count(doorId, count);
      });
      fresh.clear();
    },
  };
};

export type Greetings = ReturnType<typeof createGreetings>;
