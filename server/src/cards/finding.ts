import { type Card, cardsIn } from '@porch/core/cards';
import type { Dress } from '@porch/core/dress';
import { createMatching, FIT_LEAST, fits, type Matching } from '@porch/core/match';
import type { Dressing } from '../dress/dressing';
import { backgroundOf } from '../replies/background';
import type { Store } from '../store';

/** Offered to whoever has left something. */
const OFFERED_MOST = 3;
/** Shown to whoever looks for something: they can tell by themselves what it is. */
const SHOWN_MOST = 6;
const TITLE_WEIGHT = 3;
const TEXT_LONGEST = 600;

export interface Looking {
  text: string;
  language: string;
  /** It was left as a note: only what surely fits is offered. */
  isNote: boolean;
}

interface Index {
  matching: Matching;
  cards: ReadonlyMap<string, Card>;
}

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether each word that is typed begins one of the card's. */
const begins = ({ question, answer }: Card, typed: readonly string[]): boolean => {
  const words = wordsOf(`${question} ${answer}`);
  return typed.length > 0 && typed.every((one) => words.some((word) => word.startsWith(one)));
};

/** Which cards of a door answer what a visitor looks for, or has left. */
export const createFinding = (services: {
  store: Store;
  dressing: Pick<Dressing, 'published'>;
}) => {
  const { store, dressing } = services;
  // Of each dress and language; gone with the dress.
  const made = new WeakMap<Dress, Map<string, Index>>();

  const make = (cards: readonly Card[]): Index => {
    const matching = createMatching(backgroundOf(store));
    for (const { id, language, question, answer } of cards) {
      const fields = [
        { text: question, weight: TITLE_WEIGHT },
        { text: answer, weight: 1 },
        ...store.answersGiven.picksOf('card', id).map((one) => ({ text: one.question, weight: 1 })),
      ];
      matching.add({ id, language, fields });
    }
    return { matching, cards: new Map(cards.map((card) => [card.id, card])) };
  };

  /** Whoever reads none of the door's languages is given what is in its own. */
  const indexOf = (dress: Dress, asked: string): Index => {
    const isSpoken = dress.asked.cards.some((card) => card.language === asked);
    const language = isSpoken ? asked : dress.fallback;
    const byLanguage = made.get(dress) ?? new Map<string, Index>();
    made.set(dress, byLanguage);
    const index = byLanguage.get(language) ?? make(cardsIn(dress.asked, language, dress.fallback));
    byLanguage.set(language, index);
    return index;
  };

  return {
    /** Up to three that fit a note; or up to six for a search, also by how their words begin. */
    of: (
      doorId: string,
      { text, language, isNote }: Looking,
    ): { id: string; question: string }[] => {
      const { matching, cards } = indexOf(dressing.published(doorId), language);
      const asked = text.slice(0, TEXT_LONGEST);
      const matches = matching.best(asked, SHOWN_MOST);
      const byFit = isNote
        ? fits(matches, OFFERED_MOST)
        : matches.filter(({ fit }) => fit >= FIT_LEAST / 2);
      const typed = isNote ? [] : wordsOf(asked);
      const byWords = [...cards.values()].filter((card) => begins(card, typed)).map(({ id }) => id);
      const ids = [...new Set([...byFit.map(({ id }) => id), ...byWords])].slice(0, SHOWN_MOST);
      return ids.flatMap((id) => {
        const card = cards.get(id);
        return card ? [{ id, question: card.question }] : [];
      });
    },
  };
};

export type Finding = ReturnType<typeof createFinding>;
