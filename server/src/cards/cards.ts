import { stepAfter, toldOf } from '@porch/core/cards';
import type { CardSaid, Tapped } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import { forEach } from '../inbox/afterwards';
import { Refused } from '../refused';
import { type CardCount, type Store, toMention } from '../store';

/** Whoever writes within this after a tap was not helped by it. */
export const NOT_ENOUGH_WITHIN_MS = 3_600_000;

/** A card as it is said to somebody who tapped it. */
export interface CardTold {
  question: string;
  answer: string;
  said: CardSaid;
  tapped: Tapped;
  /** Somebody of the team has to answer it. */
  isPassed: boolean;
}

/** What is asked often: what a tap says, and how often that was enough. */
export const createCards = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'cardOf'>;
  /** Brings what is counted up to date. */
  catchUp: () => void;
}) => {
  const { store, clock, dressing, catchUp } = services;

  const isOfTheTeam = (id: string): boolean =>
    store.members.all().some((member) => member.id === id && !member.hasLeft);

  /** Whom of the team a card passes it to; where they have left, whoever comes first. */
  const passedTo = (memberId: string | null): Pick<Tapped, 'passedTo'> =>
    memberId !== null && isOfTheTeam(memberId) ? { passedTo: memberId } : {};

  const afterwards = forEach((entry) => {
    if (entry.kind !== 'visitor-said' || entry.threadId === null) return;
    const { threadId, seq, tapped, at } = entry;
    if (tapped) {
      const doorId = store.threads.byId(threadId)?.doorId;
      if (!doorId) return;
      // Whoever is passed on has somebody to answer them: a card was not enough, nor was it to be.
      store.cards.tap({ threadId, seq, doorId, cardId: tapped.card, at }, !!entry.setAside);
    } else if (!entry.setAside) store.cards.notEnough(threadId, at - NOT_ENOUGH_WITHIN_MS);
  });

  return {
    afterwards,
    /** What a card of a door says; refuses one that is not there any more. */
    told: (doorId: string, id: string): CardTold => {
      const found = dressing.cardOf(doorId, id);
      if (!found) throw new Refused('card-gone');
      const { all, card } = found;
      const passesTo = stepAfter(all, id)?.passesTo ?? null;
      const files = card.pictureIds.flatMap((one) => {
        const file = store.files.byId(one);
        return file ? [toMention(file)] : [];
      });
      return {
        question: card.question,
        answer: card.answer,
        said: { ...toldOf(all, card), files },
        tapped: { card: id, ...passedTo(passesTo) },
        isPassed: passesTo !== null,
      };
    },
    /** How often each card of a door was tapped, and how often that was enough. */
    counts: (doorId: string): CardCount[] => {
      catchUp();
      return store.cards.counts(doorId);
    },
    tidy: (): void => store.cards.dropTapsBefore(clock.now() - NOT_ENOUGH_WITHIN_MS),
  };
};

export type AskedOften = ReturnType<typeof createCards>;
