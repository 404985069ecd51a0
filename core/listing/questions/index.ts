import {
  ANSWER_LONGEST,
  CARDS_MOST,
  type Card,
  type Cards,
  FIRST_CARDS_MOST,
  firstCards,
  QUESTION_LONGEST,
  withCard,
  withStates,
} from '../../cards';
import { plainAnswer } from '../../cards/guide';
import type { LanguageCode } from '../../door-texts';
import type { LampState } from '../../lamp';
import { cleanLine, cleanMessage } from '../../text';

/** A question with its answer, in words alone, as a listing shows it. */
export interface Worded {
  question: string;
  answer: string;
}

/** A question as it stands on a listing. */
export interface ListedQuestion extends Worded {
  /** By what the listing knows it. */
  id: string;
}

/** A card as it is told to a listing. */
export interface ToldCard extends Worded {
  cardId: string;
}

/** What a card and a listing's question both said when they last agreed. */
export interface Agreed extends ListedQuestion {
  cardId: string;
}

/** What is to be done with a door's cards because of a listing. */
export type CardChange =
  | ({ do: 'add'; cardId: string } & Worded)
  /** Only what was changed there. `was`: what the card said when it was compared. */
  | { do: 'change'; cardId: string; was: Worded; to: Partial<Worded> }
  /** It is not shown first any more; the card stays. */
  | { do: 'take-out'; cardId: string };

export interface ReconciledQuestions {
  /** All that the listing is to show, in order; null: it does already. */
  write: ListedQuestion[] | null;
  changes: CardChange[];
  agreed: Agreed[];
  /** What the listing had said where both had changed, and ours counts. */
  outvoted: ListedQuestion[];
  /** What stays on the listing and is no card: too long for one, empty, or one too many. */
  notTaken: ListedQuestion[];
}

const fields = ['question', 'answer'] as const;

const isSame = (one: Worded, other: Worded): boolean =>
  fields.every((field) => one[field] === other[field]);

const keyOf = ({ question }: Worded): string => cleanLine(question).toLowerCase();

const isFit = ({ question, answer }: Worded): boolean =>
  question.trim() !== '' &&
  answer.trim() !== '' &&
  question.length <= QUESTION_LONGEST &&
  answer.length <= ANSWER_LONGEST;

const wordedOf = ({ question, answer }: Worded): Worded => ({ question, answer });

/** The listing's words, as a card would have them. */
const cleaned = (one: ListedQuestion): ListedQuestion => ({
  id: one.id,
  question: cleanLine(one.question),
  answer: cleanMessage(one.answer),
});

/** A card as words alone. */
const wordsOf = ({ question, answer, link }: Card): Worded => ({
  question: cleanLine(question),
  answer: cleanMessage([plainAnswer(answer), link].filter(Boolean).join('\n')),
});

/**
 * What a listing is told of a door's cards: those that are shown first in one language, where they answer by themselves.
 * `tooLong`: questions whose answers are longer than the listing takes.
 */
export const toldCards = (
  all: Cards,
  language: LanguageCode,
  answerLongest: number,
): { told: ToldCard[]; tooLong: string[] } => {
  const first = firstCards(all, language, language).filter(({ answer }) => answer.trim() !== '');
  const told = first.map((card) => ({ cardId: card.id, ...wordsOf(card) }));
  const isTooLong = ({ answer }: ToldCard): boolean => answer.length > answerLongest;
  return {
    told: told.filter((one) => !isTooLong(one)),
    tooLong: told.filter(isTooLong).map(({ question }) => question),
  };
};

/** How many questions of a listing a door still has room for. */
export const roomFor = (all: Cards, language: LanguageCode): number =>
  Math.max(
    0,
    Math.min(
      FIRST_CARDS_MOST - firstCards(all, language, language).length,
      CARDS_MOST - all.cards.length,
    ),
  );

/** One field of both, where what they agreed on is known: whoever changed it is followed, ours where both did. */
const merged = (was: Worded, ours: Worded, theirs: Worded) => {
  const to = wordedOf(ours);
  let isOutvoted = false;
  for (const field of fields) {
    const haveTheyChanged = theirs[field] !== was[field];
    const haveWeChanged = ours[field] !== was[field];
    if (haveTheyChanged && !haveWeChanged) to[field] = theirs[field];
    if (haveTheyChanged && haveWeChanged && theirs[field] !== ours[field]) isOutvoted = true;
  }
  return { to, isOutvoted };
};

const changed = (ours: Worded, to: Worded): Partial<Worded> =>
  Object.fromEntries(
    fields.filter((field) => ours[field] !== to[field]).map((field) => [field, to[field]]),
  );

/**
 * Makes a door's cards and a listing's questions the same, by what both said when they last agreed: whoever has changed
 * something is followed; where both have changed the same, ours counts. What was taken away here is taken away there;
 * what was taken away there is not shown first here any more, but where all of it is gone at once. Nothing of the
 * listing that is no card is lost.
 */
export const reconcileQuestions = (
  before: readonly Agreed[],
  ours: readonly ToldCard[],
  listed: readonly ListedQuestion[],
  { room, newId }: { room: number; newId: () => string },
): ReconciledQuestions => {
  const theirs = listed.map(cleaned);
  const left = new Map(theirs.map((one) => [one.id, one]));
  const found: Omit<ReconciledQuestions, 'write'> = {
    changes: [],
    agreed: [],
    outvoted: [],
    notTaken: [],
  };
  const shown: ListedQuestion[] = [];
  const show = (cardId: string, one: ListedQuestion): void => {
    shown.push(one);
    found.agreed.push({ ...one, cardId });
  };
  /** By what they agreed on; else by its id, or by its question, where they never have. */
  const partnerOf = (card: ToldCard, was: Agreed | undefined): ListedQuestion | undefined =>
    was
      ? left.get(was.id)
      : (left.get(card.cardId) ??
        [...left.values()].find(
          (one) => keyOf(one) === keyOf(card) && !before.some(({ id }) => id === one.id),
        ));

  // A listing that has lost all of them at once was not gone through by anybody: it is told them anew.
  const isLost = before.length > 1 && before.every(({ id }) => !left.has(id));

  for (const card of ours) {
    const was = before.find(({ cardId }) => cardId === card.cardId);
    const theirOne = partnerOf(card, was);
    if (!theirOne) {
      const isTakenAway = was !== undefined && isSame(was, card) && !isLost;
      if (isTakenAway) found.changes.push({ do: 'take-out', cardId: card.cardId });
      else show(card.cardId, { id: was?.id ?? card.cardId, ...wordedOf(card) });
      continue;
    }
    left.delete(theirOne.id);
    // Where they never agreed, ours counts in whatever is another.
    const { to, isOutvoted } = was
      ? merged(was, card, theirOne)
      : { to: wordedOf(card), isOutvoted: !isSame(card, theirOne) };
    if (isOutvoted) found.outvoted.push(theirOne);
    if (!isFit(to)) {
      found.notTaken.push(theirOne);
      shown.push(theirOne);
      if (was) found.agreed.push(was);
      continue;
    }
    if (!isSame(to, card)) {
      const { cardId } = card;
      found.changes.push({ do: 'change', cardId, was: wordedOf(card), to: changed(card, to) });
    }
    show(card.cardId, { id: theirOne.id, ...to });
  }

  const known = new Set(before.map(({ id }) => id));
  const rest: ListedQuestion[] = [];
  let roomLeft = room + found.changes.filter((one) => one.do === 'take-out').length;
  for (const one of left.values()) {
    // It was a card of ours that is none any more.
    if (known.has(one.id)) continue;
    if (roomLeft <= 0 || !isFit(one)) {
      rest.push(one);
      continue;
    }
    roomLeft -= 1;
    const cardId = newId();
    found.changes.push({ do: 'add', cardId, ...wordedOf(one) });
    show(cardId, one);
  }
  found.notTaken.push(...rest);
  shown.push(...rest);

  const isShown =
    shown.length === theirs.length &&
    shown.every((one, at) => one.id === theirs[at]?.id && isSame(one, theirs[at]));
  return { ...found, write: isShown ? null : shown };
};

const always: readonly LampState[] = ['lit', 'back-soon', 'dark'];

/** A card with the answer that a listing has now: its link goes with the line that said it. */
const answering = (card: Card, answer: string): Card => {
  const { link } = card;
  const hasLink = link !== '' && answer.endsWith(`\n${link}`);
  return hasLink
    ? { ...card, answer: answer.slice(0, -link.length - 1) }
    : { ...card, answer, link: '' };
};

/** A door's cards after one change on a listing; null: it cannot be made any more. */
const withOne = (all: Cards, change: CardChange, language: LanguageCode): Cards | null => {
  const card = all.cards.find(({ id }) => id === change.cardId);
  switch (change.do) {
    case 'take-out':
      return withStates(all, change.cardId, []);
    case 'add': {
      if (card || roomFor(all, language) === 0) return null;
      const { cardId: id, question, answer } = change;
      const rest = { link: '', pictureIds: [], leads: { to: 'end' } as const };
      const added = withCard(all, { id, language, question, answer, ...rest });
      return withStates(added, id, [...always]);
    }
    case 'change': {
      if (!card || !isSame(wordsOf(card), change.was)) return null;
      const { question, answer } = change.to;
      const answered = answer === undefined ? card : answering(card, answer);
      return withCard(all, { ...answered, question: question ?? card.question });
    }
  }
};

/**
 * A door's cards with what was changed on a listing. A card that has been changed meanwhile, or is not there any more, is
 * left as it is, and what there is no room for is left out: `left` are the changes that were not made.
 */
export const withListed = (
  before: Cards,
  changes: readonly CardChange[],
  language: LanguageCode,
): { all: Cards; left: CardChange[] } => {
  let all = before;
  const left: CardChange[] = [];
  for (const change of changes) {
    const next = withOne(all, change, language);
    if (next) all = next;
    else left.push(change);
  }
  return { all, left };
};

/**
 * What both agree on where some changes could not be made after all: a question that was to be a card is none, and of a
 * card that was to follow it is still what it was before. `before`: what they agreed on then.
 */
export const agreedWithout = (
  agreed: readonly Agreed[],
  left: readonly CardChange[],
  before: readonly Agreed[],
): Agreed[] =>
  agreed.flatMap((one) => {
    const change = left.find(({ cardId }) => cardId === one.cardId);
    if (!change) return one;
    return change.do === 'change' ? before.filter(({ cardId }) => cardId === one.cardId) : [];
  });
