import type { Clock } from '../clock';
import type { Written } from '../inbox/batch';
import { keyInTurn, waitForTurn } from '../jobs/in-turn';
import type { JobKind } from '../jobs/worker';
import type { Store } from '../store';
import type { Failing } from './failing';
import type { Pulled, Registry } from './registry';
import type { Taking, Understood } from './taking';

/** What a job carries that fetches from a network what it has of a door. */
export interface PullJob {
  doorId: string;
}

/** A network that says nothing by itself, or whose word was lost, is asked so often. */
const EVERY_MS = 5 * 60_000;

const keyOf = (doorId: string): string => `pull ${doorId}`;
const laterKey = (doorId: string): string => `pull ${doorId} later`;

/** Fetches from networks what they have; in pages, each from where the one before it ended. */
export const createPulling = (services: {
  store: Store;
  clock: Clock;
  registry: Registry;
  taking: Taking;
  failing: Failing;
}) => {
  const { store, clock, registry, taking, failing } = services;

  const schedule = (key: string, doorId: string, waitMs: number): void => {
    const load: PullJob = { doorId };
    const notBefore = clock.now() + waitMs;
    store.jobs.schedule(
      { key, kind: kind.name, load, notBefore, waitMs, belongs: doorId },
      clock.now(),
    );
  };

  const begin = (doorId: string): void => schedule(keyInTurn(store, keyOf(doorId)), doorId, 0);

  const beginLater = (doorId: string): void => schedule(laterKey(doorId), doorId, EVERY_MS);

  const kind: JobKind<PullJob, (Pulled & { understood: Understood }) | null> = {
    name: 'pull',
    atOnce: 4,
    leaseMs: 60_000,
    triesMost: 20,
    firstWaitMs: 2_000,
    longestWaitMs: EVERY_MS,
    do: async ({ doorId }, { key, signal }) => {
      waitForTurn(store, key, keyOf(doorId));
      const door = store.doors.byId(doorId);
      const pull = door && registry.kindOf(door)?.pull;
      if (!door || door.closedAt !== null || !pull) return null;
      const pulled = await failing.noted(doorId, () =>
        pull({ door, secret: registry.secretOf(door), mark: store.doors.mark(doorId), signal }),
      );
      return { ...pulled, understood: taking.understandSome(doorId, pulled.heard) };
    },
    note: ({ doorId }, pulled): Written<null> => {
      if (!pulled) return { result: null, news: [] };
      const isWellAgain = failing.wellNow(doorId, kind.name);
      store.doors.setMark(doorId, pulled.mark);
      if (pulled.hasMore) begin(doorId);
      else beginLater(doorId);
      return { ...taking.now(pulled.understood), isHouse: isWellAgain };
    },
    // It is asked again all the same: nobody has to say so.
    buried: ({ doorId }) => {
      beginLater(doorId);
      return { result: null, news: [] };
    },
  };

  return {
    kind,
    /** In the transaction in which the network said that it has something. */
    begin,
    /** After a start: whatever was missed. */
    beginAll: (): void =>
      store.atOnce(() => {
        for (const door of store.doors.all()) {
          if (door.closedAt === null && registry.kindOf(door)?.pull) begin(door.id);
        }
      }),
  };
};

export type Pulling = ReturnType<typeof createPulling>;
