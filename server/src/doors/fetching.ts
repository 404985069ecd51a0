import { createHash } from 'node:crypto';
import type { Inbound, RemoteFile } from '@porch/contract/doors';
import type { Entry } from '@porch/core/conversation';
import type { Clock } from '../clock';
import { isCannotWrite } from '../disk/disk';
import type { Files } from '../files/files';
import type { Written } from '../inbox/batch';
import type { Receive } from '../inbox/receive';
import { JobFailed, type JobKind } from '../jobs/worker';
import { Refused } from '../refused';
import type { Store } from '../store';
import type { Failing } from './failing';
import type { Registry } from './registry';

/** What a job carries that fetches one file of a message from its network. */
export interface FetchJob {
  threadId: string;
  entryId: string;
  /** Among the files that were coming. */
  place: number;
  file: RemoteFile;
}

/** What such a job carried before words stood in the line at once: a whole message that was kept back. */
export interface FetchBeforeJob {
  said: Inbound;
  files: readonly RemoteFile[];
}

const DAY_MS = 24 * 3_600_000;
/** So long a network is asked for a file that it cannot give now. */
const WORTH_MS = 7 * DAY_MS;
/** What is not there is looked for so long: some networks name a file before they have it. */
const GONE_MS = 3_600_000;
/** What a network no longer has, or not yet. */
const FILE_GONE = 'file-gone';
const FETCH_LONGEST_MS = 60_000;

/** The same file of the same message has the same id, however often it is fetched. */
const idOf = ({ threadId, entryId, place }: FetchJob): string =>
  `net-${createHash('sha256').update(`${threadId} ${entryId}`).digest('base64url').slice(0, 24)}-${place}`;

const keyOf = (threadId: string, entryId: string, place: number): string =>
  `fetch ${threadId} ${entryId} ${place}`;

/**
 * Bytes that are refused stay so, and what may never be asked for: nobody has to look at it. That there was too much at
 * once is no word on a file.
 */
const isForGood = (error: unknown): boolean =>
  error instanceof JobFailed
    ? error.isFinal && error.why !== FILE_GONE
    : error instanceof Refused && error.code !== 'too-many';

/** Those of one writer share what there is to fetch with; those of one door go when it goes. */
const placeOf = (doorId: string, threadId: string): string => `${doorId} ${threadId}`;

/**
 * Takes messages with files: the words stand in the line at once, with a place for each file; the files are fetched after
 * that, for as long as it takes, and nobody waits for a network that is slow.
 */
export const createFetching = (services: {
  store: Store;
  clock: Clock;
  registry: Registry;
  failing: Failing;
  receive: Receive;
  files: Files;
}) => {
  const { store, clock, registry, failing, receive, files } = services;

  const doorOf = ({ threadId }: FetchJob): string => store.threads.byId(threadId)?.doorId ?? '';

  /** Null: the door was taken away, and nobody is to be asked. */
  const bytesOf = async (
    doorId: string,
    address: string,
    signal: AbortSignal,
  ): Promise<Buffer | null> => {
    const door = store.doors.byId(doorId);
    const kind = door && registry.kindOf(door);
    if (!door || door.removedAt !== null || !kind?.fetchFile) return null;
    return kind.fetchFile({ door, secret: registry.secretOf(door), address, signal });
  };

  /** What is not there says nothing of the network, and is not looked for without end. */
  const ofFile = (error: unknown, madeAt: number): unknown => {
    if (!(error instanceof JobFailed) || error.why !== 'network-gone') return error;
    return new JobFailed(FILE_GONE, clock.now() - madeAt >= GONE_MS);
  };

  const fetched = async (
    job: FetchJob,
    madeAt: number,
    signal: AbortSignal,
  ): Promise<string | null> => {
    const id = idOf(job);
    if (store.files.byId(id)) return id;
    const doorId = doorOf(job);
    const { address, name } = job.file;
    const bytes = await failing.noted(doorId, () =>
      bytesOf(doorId, address, signal).catch((error) => {
        throw ofFile(error, madeAt);
      }),
    );
    if (bytes === null) return null;
    await files.take(id, name, bytes, { threadId: job.threadId, address: doorId });
    return id;
  };

  const kind: JobKind<FetchJob, string | null> = {
    name: 'fetch-file',
    atOnce: 12,
    atOnceOfGroup: 6,
    atOnceOfOne: 2,
    leaseMs: FETCH_LONGEST_MS,
    triesMost: 8,
    worth: (_job, madeAt) => ({ until: madeAt + WORTH_MS, why: null }),
    firstWaitMs: 2_000,
    longestWaitMs: 5 * 60_000,
    do: async (job, { madeAt, signal }) => {
      try {
        return await fetched(job, madeAt, signal);
      } catch (error) {
        if (isForGood(error)) return null;
        throw error instanceof Refused || isCannotWrite(error) ? new JobFailed('not-now') : error;
      }
    },
    note: (job, fileId) => {
      const isHouse = fileId !== null && failing.wellNow(doorOf(job), kind.name);
      return { ...receive.fileCameNow(job.threadId, job.entryId, job.place, fileId), isHouse };
    },
    buried: ({ threadId, entryId, place }) =>
      receive.fileCameNow(threadId, entryId, place, null, true),
  };

  const begin = (said: Inbound, remote: readonly RemoteFile[]): Written<string> => {
    const { doorId, networkId } = said;
    const whole = { ...said, coming: remote.map(({ name }) => name) };
    const isKnown = receive.isKnown(whole);
    const taken = receive.inboundNow(whole);
    const seen = store.deliveries.seen(doorId, networkId);
    if (isKnown || !seen?.entryId) return taken;
    const { threadId, entryId } = seen;
    const now = clock.now();
    for (const [place, file] of remote.entries()) {
      const load: FetchJob = { threadId, entryId, place, file };
      const key = keyOf(threadId, entryId, place);
      const belongs = placeOf(doorId, threadId);
      store.jobs.add({ key, kind: kind.name, load, notBefore: now, belongs }, now);
    }
    return taken;
  };

  /** Messages that were kept back for their files before this was done otherwise. */
  const before: JobKind<FetchBeforeJob, null> = {
    name: 'fetch-files',
    atOnce: 8,
    leaseMs: FETCH_LONGEST_MS,
    triesMost: 8,
    firstWaitMs: 2_000,
    longestWaitMs: FETCH_LONGEST_MS,
    do: async () => null,
    note: ({ said, files: remote }) => begin(said, remote),
  };

  return {
    kinds: [kind, before] as readonly JobKind[],
    /** In the transaction in which it is taken: the same message twice is taken and fetched once. */
    begin,
    /** What could not be had is asked for once more. Call in a transaction. */
    again: (entry: Extract<Entry, { kind: 'visitor-said' }>): Written<null> => {
      for (const place of (entry.coming ?? []).keys()) {
        const job = store.jobs.byKey(keyOf(entry.threadId ?? '', entry.id, place));
        if (job?.state === 'dead') store.jobs.revive(job.id, clock.now());
      }
      return { result: null, news: [] };
    },
  };
};

export type Fetching = ReturnType<typeof createFetching>;
