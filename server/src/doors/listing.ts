import {
  availabilityAt,
  availabilityOf,
  type Listed,
  type ListedField,
  listedFields,
  reconcile,
  settingFor,
} from '@porch/core/listing';
import { z } from 'zod';
import type { Clock } from '../clock';
import type { HoursOf } from '../hours/hours';
import type { Written } from '../inbox/batch';
import { keyInTurn, waitForTurn } from '../jobs/in-turn';
import type { JobKind } from '../jobs/worker';
import type { Lamp } from '../lamp/lamp';
import type { DoorRecord, Store } from '../store';
import type { Failing } from './failing';
import type { ComparedQuestions, ListedQuestions } from './listed-questions';
import type { Registry } from './registry';

/** What a job carries that makes a listing and the light say the same. */
export interface ListingJob {
  doorId: string;
}

/** A listing that says nothing by itself is looked at so often. */
const EVERY_MS = 10 * 60_000;

/** Where its questions could not be compared, it is tried again after this. */
const SOON_MS = 60_000;

/** What is kept of a listing with its door. */
const KeptSchema = z.object({
  /** What both said when they last agreed. */
  agreed: z.object({ isOn: z.boolean(), awayUntil: z.number().nullable(), hours: z.string() }),
  /** When that was, UTC epoch milliseconds. */
  at: z.number(),
  /** In what they differed before it, and what the listing had said. */
  differed: z.array(z.enum(listedFields)),
  theirs: z.object({ isOn: z.boolean(), awayUntil: z.number().nullable(), hours: z.string() }),
});
export type KeptListing = z.infer<typeof KeptSchema>;

export const keptListing = ({ settings }: DoorRecord): KeptListing | null =>
  KeptSchema.safeParse(settings.listing).data ?? null;

interface Found {
  ours: Listed;
  theirs: Listed;
  differed: ListedField[];
  follows: boolean;
  questions: ComparedQuestions | null;
}

const keyOf = (doorId: string): string => `listing ${doorId}`;

/** Keeps listings the same as the porch light, the opening hours and what is asked often, in both directions. */
export const createListings = (services: {
  store: Store;
  clock: Clock;
  lamp: Lamp;
  hours: Pick<HoursOf, 'written' | 'opening'>;
  registry: Registry;
  failing: Failing;
  questions: ListedQuestions;
}) => {
  const { store, clock, lamp, hours, registry, failing, questions } = services;
  let told = '';

  const oursAt = (doorId: string): Listed => ({
    ...availabilityOf(lamp.atDoor(doorId)),
    hours: hours.written(doorId),
  });

  /** Its questions, as far as they are ours to say. */
  const questionsAt = (door: DoorRecord) => {
    const listing = registry.kindOf(door)?.listing;
    return listing ? questions.ours(door, listing) : null;
  };

  const doors = (): DoorRecord[] =>
    store.doors
      .standing()
      .filter((door) => door.closedAt === null && registry.kindOf(door)?.listing);

  const schedule = (doorId: string, waitMs: number): void => {
    const own = keyOf(doorId);
    const key = waitMs > 0 ? `${own} later` : keyInTurn(store, own);
    const load: ListingJob = { doorId };
    const notBefore = clock.now() + waitMs;
    store.jobs.schedule(
      { key, kind: kind.name, load, notBefore, waitMs, belongs: doorId },
      clock.now(),
    );
  };

  const kind: JobKind<ListingJob, Found | null> = {
    name: 'listing',
    // One after the other: what comes meanwhile is told right after it.
    atOnce: 1,
    leaseMs: 60_000,
    triesMost: 20,
    firstWaitMs: 2_000,
    longestWaitMs: EVERY_MS,
    do: async ({ doorId }, { key, signal }) => {
      waitForTurn(store, key, keyOf(doorId));
      const door = store.doors.byId(doorId);
      const listing = door && registry.kindOf(door)?.listing;
      if (!door || door.closedAt !== null || !listing) return null;
      return failing.noted(doorId, async () => {
        const by = { door, secret: registry.secretOf(door), signal };
        const read = await listing.read(by);
        const theirs = { ...read, ...availabilityAt(read, clock.now()) };
        const ours = oursAt(doorId);
        const agreed = keptListing(door)?.agreed;
        const { tells, follows, differed } = reconcile(
          agreed ? availabilityAt(agreed, clock.now()) : null,
          ours,
          theirs,
        );
        if (tells) await listing.write(by, follows ? { ...theirs, hours: ours.hours } : ours);
        const compared = await questions.compare(by, listing);
        return { ours, theirs, differed, follows, questions: compared };
      });
    },
    note: ({ doorId }, found): Written<null> => {
      const door = store.doors.byId(doorId);
      if (!found || !door) return { result: null, news: [] };
      const { ours, theirs, differed, follows } = found;
      const now = clock.now();
      const isWellAgain = failing.wellNow(doorId, kind.name);
      const agreed = follows ? { ...theirs, hours: ours.hours } : ours;
      const before = keptListing(door);
      // What differed last is shown until something else does.
      const shown =
        differed.length > 0 || !before
          ? { differed, theirs }
          : { differed: before.differed, theirs: before.theirs };
      const listing: KeptListing = { agreed, at: now, ...shown };
      const asked = found.questions && questions.note(door, found.questions);
      const settings = { ...door.settings, listing, ...(asked ? { questions: asked } : {}) };
      store.doors.update({ ...door, settings });
      if (follows) lamp.turn(settingFor(theirs, now, hours.opening(doorId).isOpen(now)));
      schedule(doorId, asked?.problem ? SOON_MS : EVERY_MS);
      const wasAsked = JSON.stringify(door.settings.questions);
      const isAskedOtherwise = asked !== null && JSON.stringify(asked) !== wasAsked;
      const hasChanged = follows || differed.length > 0 || isWellAgain || isAskedOtherwise;
      return { result: null, news: [], isHouse: hasChanged };
    },
    buried: ({ doorId }) => {
      schedule(doorId, EVERY_MS);
      return { result: null, news: [] };
    },
  };

  return {
    kind,
    /** In the transaction in which a network said that its listing was changed there. */
    begin: (doorId: string): void => schedule(doorId, 0),
    /** Where the light, the hours or the questions are others than they were, listings are told. */
    note: (): void => {
      const all = doors();
      const now = JSON.stringify(all.map((door) => [door.id, oursAt(door.id), questionsAt(door)]));
      if (now === told) return;
      told = now;
      store.atOnce(() => {
        for (const { id } of all) schedule(id, 0);
      });
    },
  };
};

export type Listings = ReturnType<typeof createListings>;
