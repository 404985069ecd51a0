import { FOLD_VERSION } from '@porch/core/conversation';
import { type Store, withThreads } from '../store';
import type { Record } from './record';

const READ_AT_A_TIME = 500;
/** So often at most, while much is said: a row that each message changes is written once for all of them. */
const EVERY_MS = 1_000;
/** So many rows at a time: nobody else waits for longer. */
const AT_ONCE = 100;
/** After they could not be written. */
const AGAIN_MS = 5_000;

/** Conversations that concern what was written since the rows were last brought up to date. */
const concerned = (store: Store): Set<string> => {
  const ids = new Set<string>();
  let seq = store.rowsBehind.mark();
  for (;;) {
    const entries = store.entries.since(seq, READ_AT_A_TIME);
    for (const { conversationId } of entries) ids.add(conversationId);
    if (entries.length < READ_AT_A_TIME) return ids;
    seq = entries.at(-1)?.seq ?? seq;
  }
};

/**
 * Brings the rows of conversations into step with what was said, by and by. A kill in between costs the next start some
 * reading (`find`).
 */
export const createRowsBehind = (services: {
  store: Store;
  record: Pick<Record, 'foldAnew'>;
  report: (error: unknown) => void;
  everyMs?: number;
  againMs?: number;
}) => {
  const { store, record, report, everyMs = EVERY_MS, againMs = AGAIN_MS } = services;
  let timer: NodeJS.Timeout | null = null;
  let isStopped = false;

  /** Writes some of `left` rows. When none is left, all are in step with what was written up to `upTo`. Gives how many are left. */
  const step = (left: number, upTo: number, most?: number): number =>
    store.derive(() => {
      store.conversations.settle(most);
      const stillLeft = most === undefined ? 0 : Math.max(0, left - most);
      if (stillLeft === 0) store.rowsBehind.setMark(upTo);
      return stillLeft;
    });

  const go = (left: number, upTo: number): void => {
    timer = null;
    try {
      const stillLeft = step(left, upTo, AT_ONCE);
      if (stillLeft > 0) timer = setTimeout(go, 0, stillLeft, upTo).unref();
      // What was written meanwhile was noted while this went on.
      else if (store.conversations.behindCount() > 0) later(everyMs);
    } catch (error) {
      report(error);
      later(againMs);
    }
  };

  const begin = (): void => go(store.conversations.behindCount(), store.entries.newestSeq());

  const later = (waitMs: number): void => {
    if (timer || isStopped) return;
    timer = setTimeout(begin, waitMs).unref();
  };

  return {
    /**
     * Finds conversations whose rows the last run had not brought into step, from their entries; those of an earlier
     * fold are folded anew anyway. Only for the one process that serves: beside it another would find what is not behind.
     */
    find: (): void => {
      for (const id of concerned(store)) {
        const conversation = store.conversations.byId(id);
        if (conversation?.fold !== FOLD_VERSION) continue;
        const threads = conversation.threads.map(({ threadId, doorId }) =>
          record.foldAnew(threadId, doorId),
        );
        store.conversations.isBehind(withThreads(conversation, threads));
      }
    },
    /** Something was written and is on disk. */
    note: (): void => later(everyMs),
    /** Writes what is left, as far as the disk lets it. */
    stop: (): void => {
      isStopped = true;
      if (timer) clearTimeout(timer);
      try {
        step(0, store.entries.newestSeq());
      } catch (error) {
        // The next start finds them from their entries.
        report(error);
      }
    },
  };
};
