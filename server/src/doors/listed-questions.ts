import { ListedQuestionsSchema } from '@porch/contract/doors';
import type { LanguageCode } from '@porch/core/door-texts';
import {
  agreedWithout,
  type ReconciledQuestions,
  reconcileQuestions,
  roomFor,
  type ToldCard,
  toldCards,
  withListed,
} from '@porch/core/listing/questions';
import { z } from 'zod';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import { JobFailed } from '../jobs/worker';
import { newId } from '../security/tokens';
import type { DoorRecord, Store } from '../store';
import type { Listing, ListingBy } from './registry';
import { WEBSITE } from './website/kind';

const ListedSchema = z.object({ id: z.string(), question: z.string(), answer: z.string() });

/** What is kept of a listing's questions with its door. */
const KeptQuestionsSchema = ListedQuestionsSchema.omit({ sameCount: true }).extend({
  /** What both said when they last agreed. */
  agreed: z.array(ListedSchema.extend({ cardId: z.string() })),
});
export type KeptQuestions = z.infer<typeof KeptQuestionsSchema>;

/** What was found when a listing's questions were compared with a door's cards, and what was written there. */
interface Compared {
  problem: null;
  /** The website door whose cards they are. */
  doorId: string;
  language: LanguageCode;
  met: ReconciledQuestions;
  tooLong: string[];
}

/** What was found, or why nothing could be. */
export type ComparedQuestions = Compared | { problem: string; doorId: string };

const keptOf = (door: DoorRecord): KeptQuestions | null =>
  KeptQuestionsSchema.safeParse(door.settings.questions).data ?? null;

/** A listing's questions as its owner is shown them; null: it has none, or was not asked yet. */
export const shownQuestions = (door: DoorRecord) => {
  const kept = keptOf(door);
  if (!kept) return null;
  const { agreed, ...shown } = kept;
  return { ...shown, sameCount: agreed.length };
};

const none: Omit<KeptQuestions, 'doorId' | 'problem'> = {
  agreed: [],
  followed: null,
  outvoted: [],
  notTaken: [],
  tooLong: [],
};

/** Keeps the questions of listings the same as the cards of a website door, in both directions. */
export const createListedQuestions = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'published' | 'changeAsked'>;
}) => {
  const { store, clock, dressing } = services;

  /** The door whose cards a listing has: once chosen it is that one, while it stands. */
  const doorFor = (listing: DoorRecord): DoorRecord | null => {
    const doors = store.doors.standing().filter(({ kind }) => kind === WEBSITE);
    const chosen = doors.find(({ id }) => id === keptOf(listing)?.doorId);
    const door = chosen ?? doors.find(({ closedAt }) => closedAt === null);
    return door && door.closedAt === null ? door : null;
  };

  const toldBy = (
    listing: DoorRecord,
    answerLongest: number,
  ): { doorId: string; language: LanguageCode; told: ToldCard[]; tooLong: string[] } | null => {
    const door = doorFor(listing);
    if (!door) return null;
    const { asked, fallback } = dressing.published(door.id);
    return { doorId: door.id, language: fallback, ...toldCards(asked, fallback, answerLongest) };
  };

  return {
    /** What a listing is to be told, as far as it is ours to say. */
    ours: (listing: DoorRecord, { questions }: Listing) =>
      questions ? toldBy(listing, questions.answerLongest) : null,
    /** Compares, and writes to the listing what is to stand there; null: it has no questions, or we have no door. */
    compare: async (by: ListingBy, { questions }: Listing): Promise<ComparedQuestions | null> => {
      const ours = questions && toldBy(by.door, questions.answerLongest);
      if (!ours) return null;
      const { doorId, language, told, tooLong } = ours;
      const kept = keptOf(by.door);
      const agreed = kept?.doorId === doorId ? kept.agreed : [];
      const room = roomFor(dressing.published(doorId).asked, language);
      try {
        const theirs = await questions.read(by);
        const met = reconcileQuestions(agreed, told, theirs, { room, newId });
        if (met.write) await questions.write(by, met.write);
        return { problem: null, doorId, language, met, tooLong };
      } catch (error) {
        // The light and the hours follow the listing all the same.
        if (error instanceof JobFailed) return { problem: error.why, doorId };
        throw error;
      }
    },
    /** In the transaction that notes what was compared: the cards follow. */
    note: (listing: DoorRecord, compared: ComparedQuestions): KeptQuestions => {
      const before = keptOf(listing);
      if (compared.problem !== null) return { ...(before ?? none), ...compared };
      const { doorId, language, met, tooLong } = compared;
      const { changes } = met;
      // Somebody may have dressed the door since it was compared.
      const { left } = withListed(dressing.published(doorId).asked, changes, language);
      const followed = changes.length - left.length;
      if (followed > 0) {
        dressing.changeAsked(doorId, (asked) => withListed(asked, changes, language).all);
      }
      const earlier = before?.doorId === doorId ? before.agreed : [];
      const wordsOf = ({ question, answer }: { question: string; answer: string }) => ({
        question,
        answer,
      });
      return {
        doorId,
        agreed: agreedWithout(met.agreed, left, earlier),
        followed: followed > 0 ? { at: clock.now(), count: followed } : (before?.followed ?? null),
        // What the listing had said is shown until something else differs.
        outvoted: met.outvoted.length > 0 ? met.outvoted.map(wordsOf) : (before?.outvoted ?? []),
        notTaken: met.notTaken.map(({ question, answer }) => question || answer),
        tooLong,
        problem: null,
      };
    },
  };
};

export type ListedQuestions = ReturnType<typeof createListedQuestions>;
