import { createHash } from 'node:crypto';
import type { Inbound, RemoteFile } from '@porch/contract/doors';
import { FILES_MOST } from '@porch/contract/entries';
import type { Clock } from '../clock';
import type { Files } from '../files/files';
import type { Written } from '../inbox/batch';
import type { Receive } from '../inbox/receive';
import { JobFailed, type JobKind } from '../jobs/worker';
import { Refused } from '../refused';
import type { Store } from '../store';
import type { Registry } from './registry';

/** What a job carries that fetches what a network has of a message. */
export interface FetchJob {
  said: Inbound;
  files: readonly RemoteFile[];
}

/** What was had, and what could not be. */
interface Had {
  fileIds: string[];
  missing: string[];
}

/** The same file of the same message has the same id, however often it is fetched. */
const idOf = ({ doorId, networkId }: Inbound, at: number): string =>
  `net-${createHash('sha256').update(`${doorId} ${networkId}`).digest('base64url').slice(0, 24)}-${at}`;

/**
 * Takes messages with files: that there is one is on disk before the network hears so, and its files are fetched
 * after that, so that nobody waits for a network that is slow. What cannot be had is said to be missing.
 */
export const createFetching = (services: {
  store: Store;
  clock: Clock;
  registry: Registry;
  receive: Receive;
  files: Files;
}) => {
  const { store, clock, registry, receive, files } = services;

  const bytesOf = (doorId: string, address: string, signal: AbortSignal): Promise<Buffer> => {
    const door = store.doors.byId(doorId);
    const kind = door && registry.kindOf(door);
    if (!door || !kind?.fetchFile) throw new JobFailed('door-unknown', true);
    return kind.fetchFile({ door, secret: registry.secretOf(door), address, signal });
  };

  /** Null: it cannot be had, now or ever. */
  const fetched = async (
    said: Inbound,
    { address, name }: RemoteFile,
    at: number,
    signal: AbortSignal,
  ): Promise<string | null> => {
    const id = idOf(said, at);
    if (store.files.byId(id)) return id;
    const thread = receive.threadFor({ doorId: said.doorId, address: said.from });
    try {
      const bytes = await bytesOf(said.doorId, address, signal);
      await files.take(id, name, bytes, { threadId: thread.id, address: said.doorId });
      return id;
    } catch (error) {
      const isForever = error instanceof Refused || (error instanceof JobFailed && error.isFinal);
      if (isForever) return null;
      throw error;
    }
  };

  const kind: JobKind<FetchJob, Had> = {
    name: 'fetch-files',
    atOnce: 8,
    leaseMs: 120_000,
    triesMost: 8,
    firstWaitMs: 2_000,
    longestWaitMs: 10 * 60_000,
    do: async ({ said, files: remote }, { signal }) => {
      const had: Had = { fileIds: [], missing: [] };
      for (const [at, file] of remote.slice(0, FILES_MOST).entries()) {
        const id = await fetched(said, file, at, signal);
        if (id) had.fileIds.push(id);
        else had.missing.push(file.name);
      }
      return had;
    },
    note: ({ said }, had) => receive.inboundNow({ ...said, ...had }),
    buried: ({ said, files: remote }) =>
      receive.inboundNow({ ...said, missing: remote.map(({ name }) => name).slice(0, FILES_MOST) }),
  };

  return {
    kind,
    /** In the transaction in which it is taken: the same message twice is fetched once. */
    begin: (said: Inbound, remote: readonly RemoteFile[]): Written<null> => {
      if (store.deliveries.seen(said.doorId, said.networkId)) return { result: null, news: [] };
      const load: FetchJob = { said, files: remote };
      const key = `fetch ${said.doorId} ${said.networkId}`;
      store.jobs.add({ key, kind: kind.name, load, notBefore: clock.now() }, clock.now());
      return { result: null, news: [] };
    },
  };
};

export type Fetching = ReturnType<typeof createFetching>;
