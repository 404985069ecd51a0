import type {
  Changed,
  Delivery,
  DoorCan,
  InboundSchema,
  NetworkKind,
  Outbound,
  Plate,
  RemoteFileSchema,
  Stopped,
} from '@porch/contract/doors';
import type { Way } from '@porch/core/conversation';
import type { Listed } from '@porch/core/listing';
import type { ListedQuestion } from '@porch/core/listing/questions';
import type { z } from 'zod';
import { JobFailed } from '../jobs/worker';
import type { Seal } from '../security/seal';
import type { DoorRecord, Store, ThreadRecord } from '../store';

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

/** A file that a network has and that is to be fetched from it. */
export interface Fetching {
  door: DoorRecord;
  secret: string | null;
  /** As the network names it. */
  address: string;
  signal: AbortSignal;
}

/** What is handed to a door that is to fetch what its network has. */
export interface Pulling {
  door: DoorRecord;
  secret: string | null;
  /** Where the last time ended, as the network calls it; '' at first. */
  mark: string;
  signal: AbortSignal;
}

/** By what a wire to a network is held. */
export interface WireBy {
  door: DoorRecord;
  secret: string | null;
  /** Up to where everything is on disk, as the network calls it; '' at first. */
  mark: string;
  /** Ends the wire. */
  signal: AbortSignal;
  /** Takes what was said, and the mark where there is a new one; resolves once both are on disk. */
  heard: (heard: Heard, mark: string | null) => Promise<void>;
  /** The wire stands, and what came meanwhile is taken. */
  stands: () => Promise<unknown>;
}

export interface Pulled {
  heard: Heard;
  /** Where this ends. */
  mark: string;
  hasMore: boolean;
}

/** By which a listing is read and written. */
export interface ListingBy {
  door: DoorRecord;
  secret: string | null;
  signal: AbortSignal;
}

/** A listing of the business: what it shows of who is there, and when. All of it throws `JobFailed`. */
export interface Listing {
  read: (by: ListingBy) => Promise<Listed>;
  write: (by: ListingBy, listed: Listed) => Promise<void>;
  /** The questions that it answers by itself, where it has any. */
  questions?: {
    answerLongest: number;
    read: (by: ListingBy) => Promise<ListedQuestion[]>;
    /** All of them, in order; what is not among them is taken away there. */
    write: (by: ListingBy, questions: readonly ListedQuestion[]) => Promise<void>;
  };
}

/** What a door has made of it. */
export interface Heard {
  /** `files`: to be fetched, once it is on disk that they are. */
  inbounds?: readonly (Omit<z.input<typeof InboundSchema>, 'doorId'> & {
    files?: readonly z.input<typeof RemoteFileSchema>[];
  })[];
  deliveries?: readonly Delivery[];
  /** What people changed of what they had said, or took back. */
  changes?: readonly Omit<Changed, 'doorId'>[];
  /** Who wants nothing more by this door, or something again. */
  stops?: readonly Omit<Stopped, 'doorId'>[];
  /** Who is typing, as the network calls them. */
  typing?: readonly string[];
  /** What of it nobody reads, by its name: whoever hands it over is told so. */
  ignored?: readonly string[];
  /** There is something to be fetched. */
  isNudge?: boolean;
  /** The business's listing was changed there. */
  isListingChanged?: boolean;
  /** What the network wants to hear back; 204 without it. */
  answer?: { type: string; text: string };
}

/** What a door keeps to work: what anybody of the house may read, and what nobody may. */
export interface Kept {
  settings: Readonly<Record<string, unknown>>;
  secret: string | null;
}

/** How a door of a network is opened by its owner. */
export interface Connecting {
  /** What the owner says of it, by field, in the order in which it is asked for. */
  fields: readonly { id: string; isSecret: boolean; options?: string[] }[];
  /**
   * What is kept of what the owner says; a field that is absent stays as it was. Throws `Refused` with the field that
   * cannot be.
   */
  settle: (given: Readonly<Record<string, string>>, known: Kept | null) => Kept;
  /** What was said before, of the fields that may be read. */
  said: (door: DoorRecord) => Readonly<Record<string, string>>;
  /** What the owner has to put in at the network, by name. */
  shows: (
    door: DoorRecord,
    secret: string | null,
    origin: string,
  ) => Readonly<Record<string, string>>;
  /** The secret with a new key in it, the one before it being good for a while. Absent: the network makes the keys. */
  renewed?: (secret: string, now: number) => string;
  /** Asks the network whether all is well; gives what is to be kept of what it says of itself. Throws `JobFailed`. */
  check: (
    door: DoorRecord,
    secret: string | null,
    signal: AbortSignal,
  ) => Promise<Kept['settings']>;
}

/** A kind of door: what it can do, and how something goes out by it. */
export interface DoorKind {
  kind: string;
  /** Its network is made up, and stands on the simulated street only: no real business can be there. */
  isOnStreet?: boolean;
  /** What is drawn on its plate; absent: a window. */
  plate?: Plate;
  /** What it can do, where each door of the kind is another. */
  can: DoorCan | ((door: DoorRecord) => DoorCan);
  /** By which way it reaches people. */
  way: Way;
  /** What it carries are text messages to phone numbers, also for doors that carry nothing themselves. */
  carriesTexts?: boolean;
  /** What is written to somebody there goes out as a text message, where there is a door for that. */
  goesAsText?: boolean;
  /**
   * Carries something out; under the same key it may be asked twice. Throws `JobFailed`. Absent: what is written
   * is on their screen, and nothing has to be carried.
   */
  send?: (sending: Sending) => Promise<Delivery>;
  /** So long carrying one thing out may take; a minute where nothing is said. */
  sendLongestMs?: number;
  /**
   * Makes of what a network hands over what was said and what became of what was sent, having proved that it
   * comes from there: throws `Refused` otherwise. Absent: nothing comes in that way.
   */
  hear?: (handed: Handed) => Heard | Promise<Heard>;
  /**
   * What a network is answered that asks, before it hands anything over, whether this is where it should. Throws
   * `Refused` where it is not meant. Absent: none asks.
   */
  greet?: (asked: Omit<Handed, 'body'>) => { type: string; text: string };
  /** Fetches what the network has. Throws `JobFailed`. Absent: it says all of it by itself. */
  pull?: (pulling: Pulling) => Promise<Pulled>;
  /**
   * Holds a wire to the network on which what is said comes by itself; resolves when it was ended. Throws `JobFailed`
   * for why it broke. Absent: there is none.
   */
  wire?: (by: WireBy) => Promise<void>;
  /** What the porch light shows at a door may be another than before. */
  lightChanged?: (door: DoorRecord) => void;
  /** Tells somebody that an answer is being typed. */
  tellTyping?: (door: DoorRecord, to: string) => void;
  /** Shows who is there and when, and is kept the same as the light and the hours. Absent: it shows nothing. */
  listing?: Listing;
  /** A link by which somebody begins to write there, with a text for it. Absent, or null: there is none. */
  writeTo?: (door: DoorRecord, text: string) => string | null;
  /** How its owner opens it. Absent: it is opened otherwise. */
  connecting?: Connecting;
  /** The bytes of a file that the network has. Throws `JobFailed`. Absent: it has none. */
  fetchFile?: (fetching: Fetching) => Promise<Buffer>;
}

/** Knows the kinds of doors, so that whoever answers needs to know none. */
export const createRegistry = (services: {
  store: Store;
  seal: Seal;
  kinds: readonly DoorKind[];
  /** Whether the simulated street is there. */
  withStreet: boolean;
}) => {
  const { store, seal, kinds, withStreet } = services;
  const byKind = new Map(kinds.map((kind) => [kind.kind, kind]));
  if (byKind.size !== kinds.length) throw new Error('two doors are of the same kind');

  /** A network of the street can be joined only where the street is. */
  const isToOpen = ({ isOnStreet = false }: DoorKind): boolean => withStreet || !isOnStreet;

  const kindOf = (door: DoorRecord): DoorKind | null => byKind.get(door.kind) ?? null;

  /** The door by which an answer goes out to somebody who writes at one; null: by none, or nothing has to be carried. */
  const carrierOf = (door: DoorRecord): DoorRecord | null => {
    const kind = kindOf(door);
    if (!kind?.goesAsText) return kind?.send ? door : null;
    const isTexts = (one: DoorRecord) => one.closedAt === null && kindOf(one)?.carriesTexts;
    return store.doors.standing().find(isTexts) ?? null;
  };

  /** What a door can do; null where nobody knows its kind. */
  const canOf = (door: DoorRecord): DoorCan | null => {
    const carrier = kindOf(door)?.goesAsText ? carrierOf(door) : door;
    const can = kindOf(carrier ?? door)?.can;
    const known = typeof can === 'function' ? can(carrier ?? door) : (can ?? null);
    return known && carrier && carrier.id !== door.id ? { ...known, isAsText: true } : known;
  };

  /** Whether what is said at a door is carried by a network, and not shown on a page of ours. */
  const isCarried = (door: DoorRecord): boolean => {
    const kind = kindOf(door);
    return Boolean(kind?.send) || Boolean(kind?.goesAsText);
  };

  const isOffered = (door: DoorRecord): boolean | null =>
    kindOf(door)?.writeTo?.(door, '') ? door.settings.isOffered === true : null;

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
    /** What is drawn on its plate. */
    plateOf: (door: DoorRecord): Plate => kindOf(door)?.plate ?? 'window',
    /** Whether the panels on the websites offer it; null: nobody can be led there by a link. */
    isOffered,
    /** What the panels offer beside themselves. */
    offered: (): DoorRecord[] =>
      store.doors.standing().filter((door) => door.closedAt === null && isOffered(door) === true),
    /** Kinds of networks to which a door can be opened, in the order in which they are offered. */
    networks: (): NetworkKind[] =>
      kinds
        .filter(isToOpen)
        .flatMap(({ kind, plate = 'window', connecting, isOnStreet = false }) =>
          connecting ? [{ kind, plate, fields: [...connecting.fields], isOnStreet }] : [],
        ),
    /** How a new door of a kind is opened; null where none can be. */
    opening: (kind: string): Connecting | null => {
      const known = byKind.get(kind);
      return known && isToOpen(known) ? (known.connecting ?? null) : null;
    },
    byName: (kind: string): DoorKind | null => byKind.get(kind) ?? null,
    canOf,
    carrierOf,
    isCarried,
    secretOf,
    /** Tells a writer that an answer is being typed, where their network can. */
    tellTyping: ({ doorId, address }: Pick<ThreadRecord, 'doorId' | 'address'>): void => {
      const door = store.doors.byId(doorId);
      if (door && door.closedAt === null) kindOf(door)?.tellTyping?.(door, address);
    },
    /** By which key a door's websites sign who is signed in there; null: by none, or it cannot be opened. */
    personKey: (doorId: string): string | null => {
      const door = store.doors.byId(doorId);
      try {
        return door && secretOf(door);
      } catch {
        return null;
      }
    },
    setSecret: (doorId: string, secret: string | null): void =>
      store.doors.setSealedSecret(doorId, secret === null ? null : seal.seal(secret, doorId)),
    /**
     * By which way somebody is reached at a door, what it can do, and whether what is said has to be carried. Null where
     * nobody knows how anything would go out there.
     */
    at: (
      doorId: string,
    ): { way: Way; can: DoorCan; isCarried: boolean; isClosed: boolean } | null => {
      const door = store.doors.byId(doorId);
      const kind = door && kindOf(door);
      const can = door && canOf(door);
      if (!kind || !can) return null;
      const isClosed = door.closedAt !== null;
      return { way: kind.way, can, isCarried: isCarried(door), isClosed };
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
