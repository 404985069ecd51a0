import type { Delivery, DoorCan, InboundSchema, Outbound } from '@porch/contract/doors';
import type { Way } from '@porch/core/conversation';
import type { z } from 'zod';
import { JobFailed } from '../jobs/worker';
import type { Seal } from '../security/seal';
import type { DoorRecord, Store } from '../store';

/** What is handed to a door that is to carry something out. */
export interface Sending {
  door: DoorRecord;
  /** The door's secret; null where it has none. */
  secret: string | null;
  outbound: Outbound;
  signal: AbortSignal;
}

/** What a network hands over, byte for byte: signatures are of these. */
export interface Handed {
  door: DoorRecord;
  secret: string | null;
  body: Buffer;
  headers: Readonly<Record<string, string | string[] | undefined>>;
  query: Readonly<Record<string, unknown>>;
}

/** What a door has made of it. */
export interface Heard {
  inbounds?: readonly Omit<z.input<typeof InboundSchema>, 'doorId'>[];
  deliveries?: readonly Delivery[];
  /** What the network wants to hear back; 204 without it. */
  answer?: { type: string; text: string };
}

/** A kind of door: what it can do, and how something goes out by it. */
export interface DoorKind {
  kind: string;
  can: DoorCan;
  /** By which way it reaches people. */
  way: Way;
  /**
   * Carries something out; under the same key it may be asked twice. Throws `JobFailed`. Absent: what is written
   * is on their screen, and nothing has to be carried.
   */
  send?: (sending: Sending) => Promise<Delivery>;
  /**
   * Makes of what a network hands over what was said and what became of what was sent, having proved that it
   * comes from there: throws `Refused` otherwise. Absent: nothing comes in that way.
   */
  hear?: (handed: Handed) => Heard | Promise<Heard>;
}

/** Knows the kinds of doors, so that whoever answers needs to know none. */
export const createRegistry = (services: {
  store: Store;
  seal: Seal;
  kinds: readonly DoorKind[];
}) => {
  const { store, seal, kinds } = services;
  const byKind = new Map(kinds.map((kind) => [kind.kind, kind]));
  if (byKind.size !== kinds.length) throw new Error('two doors are of the same kind');

  const kindOf = (door: DoorRecord): DoorKind | null => byKind.get(door.kind) ?? null;

  /** A door's secret as it was set. Fails where the key that opens it is missing, or another one. */
  const secretOf = (door: DoorRecord): string | null => {
    const sealed = store.doors.sealedSecret(door.id);
    if (!sealed) return null;
    const secret = seal.open(sealed, door.id);
    if (secret === null) throw new JobFailed('secret-sealed');
    return secret;
  };

  return {
    kindOf,
    secretOf,
    setSecret: (doorId: string, secret: string | null): void =>
      store.doors.setSealedSecret(doorId, secret === null ? null : seal.seal(secret, doorId)),
    /**
     * By which way somebody is reached at a door, how long a text may be, and whether it has to be carried. Null
     * where nobody knows how anything would go out there.
     */
    at: (doorId: string): { way: Way; textLongest: number; isCarried: boolean } | null => {
      const door = store.doors.byId(doorId);
      const kind = door && kindOf(door);
      if (!kind) return null;
      return { way: kind.way, textLongest: kind.can.textLongest, isCarried: Boolean(kind.send) };
    },
    /** Doors whose secret cannot be opened with the key that is there. */
    sealedShut: (): DoorRecord[] =>
      store.doors.all().filter((door) => {
        const sealed = store.doors.sealedSecret(door.id);
        return sealed !== null && seal.open(sealed, door.id) === null;
      }),
  };
};

export type Registry = ReturnType<typeof createRegistry>;
