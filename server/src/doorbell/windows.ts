import { groupOf, type ThreadState } from '@porch/core/conversation';
import { warnedAt, windowEnd } from '@porch/core/routes';
import type { Clock } from '../clock';
import type { Persons } from '../inbox/persons';
import type { Follow } from '../inbox/record';
import type { JobKind } from '../jobs/worker';
import type { Store } from '../store';
import type { Ringing } from './ringing';

/** Which window is about to close, or closes (`isOver`): of whom, and when, UTC epoch milliseconds. */
export interface WindowJob {
  threadId: string;
  end: number;
  isOver?: boolean;
}

/**
 * Rings where a network will soon let somebody be answered no more who is still owed an answer; once it does not, they
 * stand in the line after all who can be answered.
 */
export const createWindows = (services: {
  store: Store;
  clock: Clock;
  persons: Persons;
  ringing: Ringing;
  /** For how long a door's network lets somebody be answered, in milliseconds; null: always. */
  windowOf: (doorId: string) => number | null;
  tellLine: () => void;
}) => {
  const { store, clock, persons, ringing, windowOf, tellLine } = services;

  const endOf = ({ doorId, heardAt }: ThreadState): number | null =>
    windowEnd(heardAt, windowOf(doorId));

  let isToBeTold = false;
  /** Once it is written, and once for all that closed in the same turn. */
  const tellSoon = (): void => {
    if (isToBeTold) return;
    isToBeTold = true;
    setImmediate(() => {
      isToBeTold = false;
      tellLine();
    });
  };

  const kind: JobKind<WindowJob> = {
    name: 'window-closes',
    atOnce: 100,
    leaseMs: 60_000,
    triesMost: 10,
    firstWaitMs: 1_000,
    longestWaitMs: 60_000,
    note: ({ threadId, end, isOver }) => {
      const conversation = persons.standing(threadId);
      const thread = conversation?.threads.find((one) => one.threadId === threadId);
      if (isOver) {
        if (conversation && thread && endOf(thread) === end) {
          store.conversations.write(conversation);
          tellSoon();
        }
        return { result: null, news: [] };
      }
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
      const schedule = (key: string, load: WindowJob, notBefore: number): void => {
        const waitMs = Math.max(0, notBefore - clock.now());
        store.jobs.schedule({ key, kind: kind.name, load, notBefore, waitMs }, clock.now());
      };
      schedule(`window ${threadId}`, { threadId, end }, at);
      schedule(`window-over ${threadId}`, { threadId, end, isOver: true }, end);
    }
    return [];
  };

  return { kind, follow };
};
