import type { Store } from '../store';
import { JobFailed } from './worker';

const isOnItsWay = (store: Store, key: string): boolean =>
  store.jobs.byKey(key)?.state === 'leased';

/** Under which key something is to be done once more: what comes while it is on its way is done after it. */
export const keyInTurn = (store: Store, key: string): string =>
  isOnItsWay(store, key) ? `${key} then` : key;

/** Fails, to be tried again soon, where what a job is to come after is still on its way. */
export const waitForTurn = (store: Store, own: string, key: string): void => {
  if (own !== key && isOnItsWay(store, key)) throw new JobFailed('on-its-way');
};
