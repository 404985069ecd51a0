import { DOORS_MOST, type NetworkDoor } from '@porch/contract/doors';
import type { ErrorCode } from '@porch/contract/errors';
import { requiredLine } from '../accounts/accounts';
import type { Clock } from '../clock';
import type { Change } from '../inbox/batch';
import type { Persons } from '../inbox/persons';
import { JobFailed } from '../jobs/worker';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import type { DoorRecord, Store } from '../store';
import type { Failing } from './failing';
import { shownQuestions } from './listed-questions';
import { keptListing } from './listing';
import type { Connecting, Registry } from './registry';

/** So long whoever opens a door waits for its network. */
const CHECK_LONGEST_MS = 10_000;

/** Doors that were taken away count no more, within bounds. */
const REMOVED_MOST = 200;

/** Refuses one door more than a house has. */
export const refuseTooMany = (store: Store): void => {
  const doors = store.doors.all();
  const standing = doors.filter(({ removedAt }) => removedAt === null).length;
  if (standing >= DOORS_MOST || doors.length >= REMOVED_MOST) {
    throw new Refused('too-many-of-these', { limit: DOORS_MOST });
  }
};

/** With which codes what is given to open a door is refused, at any network. */
export const givenRefusals: readonly ErrorCode[] = [
  'choice-unknown',
  'too-many-of-these',
  'text-empty',
  'text-too-long',
  'email-not-understood',
  'phone-not-understood',
  'link-not-understood',
  'server-not-understood',
  'address-taken',
];

/** Doors to networks: how their owner opens them, and whether they work. */
export const createNetworks = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  registry: Registry;
  persons: Pick<Persons, 'standing'>;
  failing: Pick<Failing, 'wellNow'>;
}) => {
  const { store, clock, change, registry, persons, failing } = services;

  const connectingOf = (kind: string): Connecting => {
    const connecting = registry.opening(kind);
    if (!connecting) throw new Refused('choice-unknown', { field: 'kind' });
    return connecting;
  };

  const doorOf = (id: string): { door: DoorRecord; connecting: Connecting } => {
    const door = store.doors.byId(id);
    const connecting = door && registry.kindOf(door)?.connecting;
    if (!door || door.removedAt !== null || !connecting) throw new Refused('not-found');
    return { door, connecting };
  };

  /** Refuses where the key that opens it is missing. */
  const secretOf = (door: DoorRecord): string | null => {
    try {
      return registry.secretOf(door);
    } catch (error) {
      if (error instanceof JobFailed) throw new Refused('secret-sealed');
      throw error;
    }
  };

  const heardFrom = (doorId: string): NetworkDoor['heardFrom'] => {
    const threadId = store.doors.heardThread(doorId);
    const talk = threadId === null ? null : persons.standing(threadId);
    const thread = talk?.threads.find((one) => one.threadId === threadId);
    const at = store.doors.health(doorId).heardAt;
    if (!talk || !thread || at === null) return null;
    return { conversationId: talk.id, threadId: thread.threadId, name: thread.name, at };
  };

  const lastSent = (doorId: string): NetworkDoor['lastSent'] => {
    const sent = store.deliveries.newestAt(doorId);
    return sent && { step: sent.step, why: sent.why };
  };

  const listingOf = (door: DoorRecord): NetworkDoor['listing'] => {
    const kept = keptListing(door);
    return kept && { ...kept, questions: shownQuestions(door) };
  };

  const shown = (id: string, origin: string, problem: string | null = null): NetworkDoor => {
    const { door, connecting } = doorOf(id);
    const secret = secretOf(door);
    const said = connecting.said(door);
    const can = registry.canOf(door);
    if (!can) throw new Refused('not-found');
    return {
      id,
      kind: door.kind,
      fields: connecting.fields.map(({ id: field, isSecret, options }) => ({
        id: field,
        isSecret,
        ...(options ? { options } : {}),
        value: isSecret ? '' : (said[field] ?? ''),
        isSet: isSecret ? secret !== null : Boolean(said[field]),
      })),
      shows: connecting.shows(door, secret, origin),
      canRenew: connecting.renewed !== undefined,
      can,
      heardFrom: heardFrom(id),
      lastSent: lastSent(id),
      listing: listingOf(door),
      problem,
    };
  };

  return {
    shown,
    /** Opens a door; gives its id. */
    make: (kind: string, name: string, given: Readonly<Record<string, string>>): string => {
      refuseTooMany(store);
      const { settings, secret } = connectingOf(kind).settle(given, null);
      const door: DoorRecord = {
        id: newId(),
        publicId: newId(),
        kind,
        name: requiredLine(name, 'name'),
        settings,
        memberIds: null,
        closedAt: null,
        removedAt: null,
      };
      change(() => {
        store.doors.add(door, clock.now());
        registry.setSecret(door.id, secret);
      });
      return door.id;
    },
    set: (id: string, given: Readonly<Record<string, string>>): void => {
      const { door, connecting } = doorOf(id);
      const { settings } = door;
      const next = connecting.settle(given, { settings, secret: secretOf(door) });
      change(() => {
        store.doors.update({ ...door, settings: next.settings });
        registry.setSecret(id, next.secret);
        store.jobs.hurry(id, clock.now());
      });
    },
    /** Takes a door away: what was said by it stays, and its keys are forgotten. */
    remove: (id: string): void => {
      const { door } = doorOf(id);
      const now = clock.now();
      change(() => {
        store.doors.update({ ...door, closedAt: door.closedAt ?? now, removedAt: now });
        registry.setSecret(id, null);
        // What still waits for it ends now, and says so.
        store.jobs.hurry(id, now);
      });
    },
    /** Makes another key, where the house makes them; the one before it is good for a while. */
    renewKey: (id: string): void => {
      const { door, connecting } = doorOf(id);
      const secret = secretOf(door);
      const next = secret && connecting.renewed?.(secret, clock.now());
      if (!next) throw new Refused('not-found');
      change(() => registry.setSecret(id, next));
    },
    /** Asks the network whether all is well; gives what is wrong by its code, null for nothing. */
    check: async (id: string): Promise<string | null> => {
      const { door, connecting } = doorOf(id);
      try {
        const learned = await connecting.check(
          door,
          secretOf(door),
          AbortSignal.timeout(CHECK_LONGEST_MS),
        );
        change(() => {
          // What was changed while the network was asked stays.
          const now = store.doors.byId(id) ?? door;
          store.doors.update({ ...now, settings: { ...now.settings, ...learned } });
          failing.wellNow(id);
        });
        return null;
      } catch (error) {
        if (error instanceof JobFailed) return error.why;
        throw error;
      }
    },
  };
};

export type Networks = ReturnType<typeof createNetworks>;
