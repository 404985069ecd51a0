import { FOLD_VERSION } from '@porch/core/conversation';
import type { Store } from '../store';
import type { Record } from './record';

/** So much of one turn may go into folding anew: nobody who is served meanwhile waits longer for it. */
const TURN_LONGEST_MS = 5;
const READ_AT_A_TIME = 20;

const nextTurn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/**
 * Brings conversations that an earlier version of the fold has made up to today's, by and by, while the house
 * is open. (Whoever writes in one meanwhile brings that one up to date first.)
 */
export const createRefold = ({
  store,
  record,
  version = FOLD_VERSION,
}: {
  store: Store;
  record: Pick<Record, 'upToDate'>;
  version?: number;
}) => {
  let isStopped = false;

  /** Some of what is left, in one transaction; false when nothing was left. */
  const turn = (): boolean => {
    const until = performance.now() + TURN_LONGEST_MS;
    const ids = store.conversations.foldedBefore(version, READ_AT_A_TIME);
    store.atOnce(() => {
      for (const id of ids) {
        const conversation = store.conversations.byId(id);
        if (conversation) store.conversations.write(record.upToDate(conversation));
        if (performance.now() > until) return;
      }
    });
    return ids.length > 0;
  };

  return {
    /** Folds everything anew that needs it; resolves when that is done, or when it is stopped. */
    run: async (): Promise<void> => {
      while (!isStopped && turn()) await nextTurn();
    },
    stop: (): void => {
      isStopped = true;
    },
  };
};

export type Refold = ReturnType<typeof createRefold>;
