import type { Clock } from '../clock';
import type { Write } from '../inbox/batch';
import { JobFailed } from '../jobs/worker';
import type { DoorRecord, Store } from '../store';
import type { Failing } from './failing';
import type { DoorKind, Registry } from './registry';
import type { Taking } from './taking';

const AGAIN_FIRST_MS = 2_000;
const AGAIN_LONGEST_MS = 60_000;

/** A wire that is held, or that is tried again. */
interface Held {
  /** How its door is connected; a door that is connected otherwise has another wire. */
  by: string;
  ending: AbortController;
}

/** Holds wires to the networks that speak over one, for as long as their doors are open. */
export const createWires = (services: {
  store: Store;
  clock: Clock;
  write: Write;
  registry: Registry;
  taking: Taking;
  failing: Failing;
  report: (error: unknown) => void;
}) => {
  const { store, clock, write, registry, taking, failing, report } = services;
  const held = new Map<string, Held>();
  let isHolding = false;

  const stands = (doorId: string): Promise<null> =>
    write(() => ({ result: null, news: [], isHouse: failing.wellNow(doorId, 'wire') }));

  const hold = async (
    wire: NonNullable<DoorKind['wire']>,
    door: DoorRecord,
    signal: AbortSignal,
    stood: () => void,
  ): Promise<void> => {
    const { id } = door;
    await failing.noted(id, () =>
      wire({
        door,
        secret: registry.secretOf(door),
        mark: store.doors.mark(id),
        signal,
        heard: async (heard, mark) => {
          const understood = taking.understandSome(id, heard);
          taking.tellTyping(understood);
          await write(() => {
            if (mark !== null) store.doors.setMark(id, mark);
            return taking.now(understood);
          }, id);
        },
        stands: () => {
          stood();
          return stands(id);
        },
      }),
    );
  };

  const run = async (doorId: string, { signal }: AbortController): Promise<void> => {
    let waitMs = AGAIN_FIRST_MS;
    while (!signal.aborted) {
      const door = store.doors.byId(doorId);
      const wire = door && registry.kindOf(door)?.wire;
      if (!door || !wire) return;
      let hasStood = false;
      await hold(wire, door, signal, () => {
        hasStood = true;
      }).catch((error) => {
        if (!(error instanceof JobFailed)) report(error);
      });
      if (signal.aborted) return;
      // One that stood was a good one: the next is tried soon.
      waitMs = hasStood ? AGAIN_FIRST_MS : Math.min(AGAIN_LONGEST_MS, waitMs * 2);
      await clock.wait(waitMs);
    }
  };

  const byOf = ({ id, settings }: DoorRecord): string =>
    JSON.stringify([settings.told, store.doors.sealedSecret(id)]);

  const end = (doorId: string): void => {
    held.get(doorId)?.ending.abort();
    held.delete(doorId);
  };

  const note = (): void => {
    if (!isHolding) return;
    const doors = store.doors
      .all()
      .filter((door) => door.closedAt === null && registry.kindOf(door)?.wire);
    for (const doorId of held.keys()) {
      if (!doors.some(({ id }) => id === doorId)) end(doorId);
    }
    for (const door of doors) {
      const by = byOf(door);
      if (held.get(door.id)?.by === by) continue;
      end(door.id);
      const ending = new AbortController();
      held.set(door.id, { by, ending });
      run(door.id, ending).catch(report);
    }
  };

  return {
    /** From now on: by whoever serves the house, and by no command that runs beside it. */
    begin: (): void => {
      isHolding = true;
      note();
    },
    /** The house may be another than before: doors were opened, closed, or connected otherwise. */
    note,
    /** The porch light may show something else. */
    lightChanged: (): void => {
      for (const doorId of held.keys()) {
        const door = store.doors.byId(doorId);
        if (door) registry.kindOf(door)?.lightChanged?.(door);
      }
    },
    /** Whether a wire is held, or tried again. */
    isHeld: (doorId: string): boolean => held.has(doorId),
    stop: (): void => {
      isHolding = false;
      for (const doorId of [...held.keys()]) end(doorId);
    },
  };
};

export type Wires = ReturnType<typeof createWires>;
