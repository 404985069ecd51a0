import type { House } from '@porch/contract/house';
import type { RollPage } from '@porch/contract/line';
import { toLineMark } from '@porch/core/patience';
import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import type { Query, QueryClient } from '@tanstack/react-query';
import type {
  PersistedClient,
  PersistQueryClientProviderProps,
} from '@tanstack/react-query-persist-client';
import { createStore, del, get, set } from 'idb-keyval';
import type { GroupData } from '../live/cache';
import { type Known, knownKey } from '../live/store';
import { api } from '../session/api';
import { houseKey } from '../session/house';
import { keptReplies } from '../session/quick-replies';
import { ApiError } from '../session/refused';
import { dropShared } from '../session/shared';
import { forgetLine } from '../start/kept';
import { buildName } from './build-name';
import { drafts } from './drafts';
import { watchVersions } from './new-version';
import { forgetTyped } from './typed';

const DAY_MS = 86_400_000;
const KEPT_LONGEST_MS = 7 * DAY_MS;
/** How many conversations can be read without signal: those that were looked at last. */
const ROLLS_MOST = 50;
/** So much of each, however far somebody has read back: it is written whole at every change. */
const ENTRIES_MOST = 100;
const ROWS_MOST = 120;
/** Soon enough for a page that is closed at once after something was done. */
const WRITTEN_EVERY_MS = 300;
/** A device that does not answer for its own storage is not waited for. */
const OPENING_LONGEST_MS = 1_000;

const keptKeys: readonly unknown[] = [houseKey[0], knownKey[0], 'line', 'roll'];

const shelf = typeof indexedDB === 'undefined' ? null : createStore('porch-kept', 'seen');

const orNothing = <Value>(asked: Promise<Value>): Promise<Value | null> =>
  Promise.race([
    asked.catch(() => null),
    new Promise<null>((resolve) => setTimeout(() => resolve(null), OPENING_LONGEST_MS)),
  ]);

const storage = shelf && {
  getItem: (key: string) => orNothing(get<string>(key, shelf)),
  setItem: (key: string, value: string) => set(key, value, shelf).catch(() => undefined),
  removeItem: (key: string) => del(key, shelf).catch(() => undefined),
};

type Seen = PersistedClient['clientState']['queries'][number];

const withData = <Data>(query: Seen, change: (data: Data) => Data): Seen => ({
  ...query,
  state: { ...query.state, data: change(query.state.data as Data) },
});

const topOf = (data: GroupData): GroupData => {
  const last = data.rows[ROWS_MOST - 1];
  if (!last || data.rows.length === ROWS_MOST) return data;
  return { rows: data.rows.slice(0, ROWS_MOST), next: toLineMark(last) };
};

const endOf = (roll: RollPage): RollPage =>
  roll.entries.length <= ENTRIES_MOST
    ? roll
    : { ...roll, entries: roll.entries.slice(-ENTRIES_MOST), hasOlder: true };

/** What is kept of all that was seen: the top of the line and the end of the newest rolls. */
export const toKeep = (seen: PersistedClient): PersistedClient => {
  const { queries } = seen.clientState;
  const of = (kind: string) => queries.filter(({ queryKey }) => queryKey[0] === kind);
  const rolls = of('roll')
    .sort((a, b) => b.state.dataUpdatedAt - a.state.dataUpdatedAt)
    .slice(0, ROLLS_MOST)
    .map((query) => withData(query, endOf));
  return {
    ...seen,
    clientState: {
      mutations: [],
      queries: [
        ...of(houseKey[0]),
        ...of(knownKey[0]),
        ...of('line').map((query) => withData(query, topOf)),
        ...rolls,
      ],
    },
  };
};

const persister = createAsyncStoragePersister({
  storage,
  key: 'seen',
  throttleTime: WRITTEN_EVERY_MS,
  serialize: (seen) => JSON.stringify(toKeep(seen)),
});

/** The line, the rolls looked at and the house stay on this device, to be read without signal. */
export const keeping = (): PersistQueryClientProviderProps['persistOptions'] => ({
  persister,
  maxAge: KEPT_LONGEST_MS,
  // Another build may mean something else by the same data.
  buster: buildName(),
  dehydrateOptions: {
    shouldDehydrateQuery: ({ queryKey, state }: Query) => {
      if (state.data === undefined || !keptKeys.includes(queryKey[0])) return false;
      // That nobody was signed in may be untrue a moment later: it is always asked anew.
      return queryKey[0] !== houseKey[0] || Boolean((state.data as House).me);
    },
    shouldDehydrateMutation: () => false,
  },
});

/** Lets what is kept live as long in memory as on the device. */
export const keepLong = (client: QueryClient): void => {
  for (const key of keptKeys) client.setQueryDefaults([key], { gcTime: KEPT_LONGEST_MS });
};

/** What was kept of the house is shown, and asked anew at once: it may be another by now. */
export const askHouseAnew = (client: QueryClient): Promise<void> =>
  client.invalidateQueries({ queryKey: houseKey });

/** What was known when this device last looked; undefined when nothing is kept. */
export const lastKnown = (client: QueryClient): Known | undefined =>
  client.getQueryData<Known>(knownKey);

/** Nobody is signed in: nothing of what was seen stays on this device. */
export const forget = (client: QueryClient): void => {
  client.removeQueries({
    predicate: (query) =>
      query.queryKey[0] !== houseKey[0] &&
      (keptKeys.includes(query.queryKey[0]) || !query.isActive()),
  });
  void drafts.forgetFiles();
  forgetTyped();
  void dropShared();
  void keptReplies.forget();
  void forgetLine();
  void persister.removeClient();
};

/** Whether the app can be had anew now: from the server, or from what this device keeps of it. */
const canOpen = async (): Promise<boolean> => {
  if (navigator.serviceWorker?.controller) return true;
  return api.get('/healthz').then(
    () => true,
    // A server that says it is not well is there all the same.
    (error) => error instanceof ApiError && error.status > 0,
  );
};

/**
 * Opens the app anew at an address. A part of it that did not come is not asked for a second time by the
 * page that missed it, and after a change of version it is not there any more.
 */
export const openAnew = async (address: string): Promise<void> => {
  if (await canOpen()) location.replace(address);
};

/** Keeps the app itself on this device as well, once all else has come. */
export const keepApp = (): void => {
  if (typeof navigator === 'undefined' || !('serviceWorker' in navigator)) return;
  const register = () =>
    void navigator.serviceWorker.register('/worker.js').then(watchVersions, () => undefined);
  if (document.readyState === 'complete') register();
  else window.addEventListener('load', register, { once: true });
};
