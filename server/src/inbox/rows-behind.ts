import { FOLD_VERSION } from '@porch/core/conversation';
import { isCannotWrite } from '../disk/disk';
import { type Store, withThreads } from '../store';
import type { Record } from './record';

const READ_AT_A_TIME = 500;
/** So often at most, while much is said: a row that each message changes is written once for all of them. */
const EVERY_MS = 1_000;
/** So many rows at a time: nobody else waits for longer. */
const AT_ONCE = 100;
/** After it could not be written. */
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
 * After a start: conversations whose rows the last run had not brought up to date are found from their entries. Those of
 * an earlier fold are folded anew anyway.
 */
export const findRowsBehind = (store: Store, { foldAnew }: Pick<Record, 'foldAnew'>): void => {
  for (const id of concerned(store)) {
    const conversation = store.conversations.byId(id);
    if (conversation?.fold !== FOLD_VERSION) continue;
    const threads = conversation.threads.map(({ threadId, doorId }) => foldAnew(threadId, doorId));
    store.conversations.isBehind(withThreads(conversation, threads));
  }
};

/** Brings the rows of conversations into step with what was said, by and by; a kill in between costs the next start some reading. */
export const createRowsBehind = (store: Store) => {
  let timer: NodeJS.Timeout | null = null;
  let isStopped = false;

  /** Some of `left` rows; when none is left, all are in step with what was written up to `upTo`. Gives how many are left. */
  const step = (left: number, upTo: number, most?: number): number =>
    store.atOnce(() => {
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
    } catch (error) {
      if (!isCannotWrite(error)) throw error;
      later(AGAIN_MS);
    }
  };

  const begin = (): void => go(store.conversations.behindCount(), store.entries.newestSeq());

  const later = (waitMs: number): void => {
    if (timer || isStopped) return;
    timer = setTimeout(begin, waitMs).unref();
  };

  return {
    /** Something was written and is on disk. */
    note: (): void => later(EVERY_MS),
    /** Writes what is left, as far as the disk lets it. */
    stop: (): void => {
      isStopped = true;
      if (timer) clearTimeout(timer);
      try {
        step(0, store.entries.newestSeq());
      } catch (error) {
        // The next start finds them from their entries.
        if (!isCannotWrite(error)) throw error;
      }
    },
  };
};
