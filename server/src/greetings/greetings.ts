import type { Entry, ThreadState } from '@porch/core/conversation';
import { FIRST_HELLO } from '@porch/core/greetings';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import { forEach } from '../inbox/afterwards';
import type { Recording } from '../inbox/record';
import { newId } from '../security/tokens';
import { ANOTHER_VISIT_MS } from '../signs/signs';
import type { GreetingCount, Store } from '../store';

/** What a visitor says beside their first words: which greeting they had seen, and whether they only try it. */
export interface Greeted {
  greeted?: string;
  isTrial?: boolean;
}

const isSaid = ({ kind }: Entry): boolean =>
  kind === 'visitor-said' || kind === 'team-said' || kind === 'door-sign';

/** Greetings that are said before anybody writes, and the first hello: what is noted of them, and what came of them. */
export const createGreetings = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'greetingOf' | 'published'>;
  /** Brings what is counted up to date. */
  catchUp: () => void;
}) => {
  const { store, clock, dressing, catchUp } = services;
  // Counted here and written now and then: a page of a website that many look at costs no transaction each time.
  const fresh = new Map<string, GreetingCount & { doorId: string }>();

  /** What an entry adds to what is counted of a greeting; null: nothing. */
  const countOf = (entry: Entry, threadId: string): GreetingCount | null => {
    if (!isSaid(entry)) return null;
    const wasHello = store.greetings.spoken(threadId);
    if (entry.kind === 'door-sign' && !entry.isTried) {
      if (entry.greeting) return { greetingId: entry.greeting.id, seen: 0, answered: 1 };
      if (!entry.isHello) return null;
      store.greetings.helloed(threadId);
      return { greetingId: FIRST_HELLO, seen: 1, answered: 0 };
    }
    const isAnswer = wasHello && entry.kind === 'visitor-said' && !entry.tapped;
    return isAnswer ? { greetingId: FIRST_HELLO, seen: 0, answered: 1 } : null;
  };

  const afterwards = forEach((entry) => {
    if (entry.threadId === null) return;
    const count = countOf(entry, entry.threadId);
    const thread = count && store.threads.byId(entry.threadId);
    if (count && thread) store.greetings.count(thread.doorId, count);
  });

  return {
    afterwards,
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
      catchUp();
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
