import { groupOf, type ThreadState } from '@porch/core/conversation';
import { warnedAt, windowEnd } from '@porch/core/routes';
import type { Clock } from '../clock';
import type { Persons } from '../inbox/persons';
import type { Follow } from '../inbox/record';
import type { JobKind } from '../jobs/worker';
import type { Store } from '../store';
import type { Ringing } from './ringing';

/** Which window is about to close: of whom, and when, UTC epoch milliseconds. */
export interface WindowJob {
  threadId: string;
  end: number;
}

/** Rings where a network will soon let somebody be answered no more who is still owed an answer. */
export const createWindows = (services: {
  store: Store;
  clock: Clock;
  persons: Persons;
  ringing: Ringing;
  /** For how long a door's network lets somebody be answered, in milliseconds; null: always. */
  windowOf: (doorId: string) => number | null;
}) => {
  const { store, clock, persons, ringing, windowOf } = services;

  const endOf = ({ doorId, heardAt }: ThreadState): number | null =>
    windowEnd(heardAt, windowOf(doorId));

  const kind: JobKind<WindowJob> = {
    name: 'window-closes',
    atOnce: 100,
    leaseMs: 60_000,
    triesMost: 10,
    firstWaitMs: 1_000,
    longestWaitMs: 60_000,
    note: ({ threadId, end }) => {
      const conversation = persons.standing(threadId);
      const thread = conversation?.threads.find((one) => one.threadId === threadId);
      // They may have written again meanwhile, or the house may have slept through all of it.
      const isThis = thread !== undefined && endOf(thread) === end && end > clock.now();
      const group = conversation && groupOf(conversation.state);
      if (conversation && isThis && (group === 'waiting' || group === 'note')) {
        ringing.windowCloses(conversation);
      }
      return { result: null, news: [] };
    },
  };

  const follow: Follow = (_was, conversation, entries) => {
    for (const entry of entries) {
      const { threadId } = entry;
      if (entry.kind !== 'visitor-said' || entry.setAside || threadId === null) continue;
      const thread = conversation.threads.find((one) => one.threadId === threadId);
      const end = thread ? endOf(thread) : null;
      const at = thread && end !== null ? warnedAt(end, windowOf(thread.doorId) ?? 0) : null;
      if (end === null || at === null || end <= clock.now()) continue;
      const job = { key: `window ${threadId}`, kind: kind.name, load: { threadId, end } };
      const waitMs = Math.max(0, at - clock.now());
      store.jobs.schedule({ ...job, notBefore: at, waitMs }, clock.now());
    }
    return [];
  };

  return { kind, follow };
};
