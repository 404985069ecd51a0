import type { ThreadState } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import type { Change } from '../inbox/batch';
import type { Follow, Recording } from '../inbox/record';
import { newId } from '../security/tokens';
import { ANOTHER_VISIT_MS } from '../signs/signs';
import type { GreetingCount, Store } from '../store';

/** Which greeting a visitor had seen when they wrote; one that is only tried is not counted. */
export interface Greeted {
  id: string;
  isTried?: boolean;
}

/** Greetings that are said before anybody writes: what is noted of them, and what came of them. */
export const createGreetings = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  dressing: Pick<Dressing, 'greetingOf' | 'published'>;
}) => {
  const { store, clock, change, dressing } = services;
  // Counted here and written now and then: a page of a website that many look at costs no transaction each time.
  const fresh = new Map<string, GreetingCount & { doorId: string }>();

  const follow: Follow = (_was, conversation, entries) => {
    for (const entry of entries) {
      if (entry.kind !== 'door-sign' || !entry.greeting || entry.greeting.isTried) continue;
      const thread = conversation.threads.find((one) => one.threadId === entry.threadId);
      if (!thread) continue;
      store.greetings.count(thread.doorId, {
        greetingId: entry.greeting.id,
        seen: 0,
        answered: 1,
      });
    }
    return [];
  };

  return {
    follow,
    /** What is noted before the first words of a visit: the greeting that they answer, in its own words. */
    before: (
      doorId: string,
      known: ThreadState | null,
      greeted: Greeted | undefined,
    ): Recording[] => {
      const greeting = greeted && dressing.greetingOf(doorId, greeted.id);
      if (!greeting) return [];
      const last = known && store.entries.bySeq(known.saidSeq);
      if (last && clock.now() - last.at < ANOTHER_VISIT_MS) return [];
      const { id, memberId, text } = greeting;
      const isTried = greeted.isTried ? { isTried: true } : {};
      const said = { kind: 'door-sign' as const, text, until: null };
      return [{ id: newId(), happening: { ...said, greeting: { id, memberId, ...isTried } } }];
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
    /** Writes down what was counted meanwhile. */
    tick: (): void => {
      if (fresh.size === 0) return;
      const news = [...fresh.values()];
      change(() => {
        for (const { doorId, ...count } of news) store.greetings.count(doorId, count);
      });
      fresh.clear();
    },
  };
};

export type Greetings = ReturnType<typeof createGreetings>;
