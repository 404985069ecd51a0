import type { Asks } from '../conversation';
import type { LanguageCode } from '../door-texts';
import type { LampState } from '../lamp';

/** What follows after a card was read. */
export type Leads =
  | { to: 'end' }
  /** Further cards, in this order. */
  | { to: 'cards'; ids: string[] }
  /** A detail that is asked for, and what follows once it was given; null: nothing. */
  | { to: 'ask'; asks: Asks; next: string | null }
  /** Somebody of the team for whom it is. */
  | { to: 'pass'; memberId: string };

/** A question that is asked often, with the answer that the owner wrote. */
export interface Card {
  /** Made where it was added; stays when its words change. */
  id: string;
  /** In which language it is written; its visitors are those who read it, and whoever has no card in their own. */
  language: LanguageCode;
  /** What stands on its button. */
  question: string;
  /** Words, or a guide: see `blocksOf`. */
  answer: string;
  /** A page to go on with; empty: none. */
  link: string;
  /** In the order in which they are shown. */
  pictureIds: string[];
  leads: Leads;
}

/** The cards of a door: all of them, and which are offered first, in their order, while the light is so. */
export interface Cards {
  cards: Card[];
  first: { id: string; states: LampState[] }[];
}

/** In one language. */
export const FIRST_CARDS_MOST = 10;
/** From a first card on; whoever taps oftener would rather talk to somebody. */
export const STEPS_MOST = 3;
export const CARDS_MOST = 60;
/** To so many a card leads on at most. */
export const FURTHER_MOST = 10;
export const QUESTION_LONGEST = 80;
export const ANSWER_LONGEST = 4_000;
export const CARD_PICTURES_MOST = 6;
export const ASKED_FOR_LONGEST = 80;
export const CARD_LINK_LONGEST = 500;

/** Something in a door's cards that is not right: of which card, and what. */
export interface CardProblem {
  id: string;
  code:
    | 'question-empty'
    | 'question-too-long'
    | 'answer-empty'
    | 'answer-too-long'
    | 'label-empty'
    | 'label-too-long'
    | 'link-unknown'
    | 'card-unknown'
    | 'leads-back'
    | 'too-deep'
    | 'nowhere'
    | 'too-many'
    | 'too-many-first'
    | 'too-many-further'
    | 'too-many-pictures';
}

const idsAfter = ({ leads }: Card): readonly string[] => {
  switch (leads.to) {
    case 'cards':
      return leads.ids;
    case 'ask':
      return leads.next === null ? [] : [leads.next];
    default:
      return [];
  }
};

/** A card as it stands in the drawn tree: how many steps after a first one, and what leads to it. */
export interface Branch {
  card: Card;
  /** 0 is a first card. */
  depth: number;
  /** It stands above itself: a tree that leads back is drawn once and goes no further. */
  leadsBack: boolean;
}

const byId = ({ cards }: Cards): ReadonlyMap<string, Card> =>
  new Map(cards.map((card) => [card.id, card]));

const branchesFrom = (
  card: Card,
  known: ReadonlyMap<string, Card>,
  above: readonly string[],
): Branch[] => {
  const leadsBack = above.includes(card.id);
  const branch = { card, depth: above.length, leadsBack };
  if (leadsBack || above.length > STEPS_MOST) return [branch];
  const below = idsAfter(card).flatMap((id) => known.get(id) ?? []);
  return [branch, ...below.flatMap((one) => branchesFrom(one, known, [...above, card.id]))];
};

/** Whether there is so much of everything that the tree is not worth drawing: it would have more branches than anybody counts. */
const isOutOfBounds = (all: Cards): boolean =>
  all.cards.length > CARDS_MOST ||
  all.first.length > CARDS_MOST ||
  all.cards.some((card) => idsAfter(card).length > FURTHER_MOST);

/**
 * The cards of a door as a tree, from top to bottom as it is drawn. A card that several lead to stands below each of them.
 * Of more than there may be none is drawn.
 */
export const treeOf = (all: Cards): Branch[] => {
  if (isOutOfBounds(all)) return [];
  const known = byId(all);
  return all.first.flatMap(({ id }) => {
    const card = known.get(id);
    return card ? branchesFrom(card, known, []) : [];
  });
};

const isLink = (link: string): boolean =>
  link.length <= CARD_LINK_LONGEST && /^https?:\/\/[^\s]+\.[^\s]+$/i.test(link);

const labelProblems = ({ leads }: Card): (CardProblem['code'] | false)[] => {
  if (leads.to !== 'ask' || leads.asks.field !== 'own') return [];
  const { label } = leads.asks;
  return [
    label.trim() === '' && 'label-empty',
    label.length > ASKED_FOR_LONGEST && 'label-too-long',
  ];
};

const textProblems = (card: Card): CardProblem[] => {
  const { id, question, answer, link, pictureIds, leads } = card;
  const found: (CardProblem['code'] | false)[] = [
    question.trim() === '' && 'question-empty',
    question.length > QUESTION_LONGEST && 'question-too-long',
    answer.trim() === '' && leads.to === 'end' && 'answer-empty',
    answer.length > ANSWER_LONGEST && 'answer-too-long',
    leads.to === 'cards' && leads.ids.length === 0 && 'nowhere',
    link !== '' && !isLink(link) && 'link-unknown',
    pictureIds.length > CARD_PICTURES_MOST && 'too-many-pictures',
    idsAfter(card).length > FURTHER_MOST && 'too-many-further',
    ...labelProblems(card),
  ];
  return found.flatMap((code) => (code ? [{ id, code }] : []));
};

const hasTooManyFirst = (all: Cards, known: ReadonlyMap<string, Card>): boolean => {
  if (all.first.length > CARDS_MOST) return true;
  const counts = new Map<string, number>();
  for (const { id } of all.first) {
    const language = known.get(id)?.language ?? '';
    counts.set(language, (counts.get(language) ?? 0) + 1);
  }
  return [...counts.values()].some((count) => count > FIRST_CARDS_MOST);
};

/** Everything that keeps the cards of a door from being shown; none: they may be. */
export const problemsIn = (all: Cards): CardProblem[] => {
  const known = byId(all);
  const missing = all.cards.flatMap((card): CardProblem[] =>
    idsAfter(card).every((id) => known.has(id)) ? [] : [{ id: card.id, code: 'card-unknown' }],
  );
  const ofTree = treeOf(all).flatMap(({ card: { id }, depth, leadsBack }): CardProblem[] => {
    if (leadsBack) return [{ id, code: 'leads-back' }];
    return depth >= STEPS_MOST ? [{ id, code: 'too-deep' }] : [];
  });
  const bounds: (CardProblem['code'] | false)[] = [
    all.cards.length > CARDS_MOST && 'too-many',
    hasTooManyFirst(all, known) && 'too-many-first',
  ];
  const found = [
    ...all.cards.flatMap(textProblems),
    ...missing,
    ...all.first.flatMap(({ id }): CardProblem[] =>
      known.has(id) ? [] : [{ id, code: 'card-unknown' }],
    ),
    ...ofTree,
    ...bounds.flatMap((code) => (code ? [{ id: '', code }] : [])),
  ];
  const keys = new Set<string>();
  return found.filter(({ id, code }) => !keys.has(`${id} ${code}`) && keys.add(`${id} ${code}`));
};

/** Those of cards that somebody is offered who reads one language: in it, or where there is none in the other. */
const readIn = <One extends Card>(
  cards: readonly One[],
  language: LanguageCode,
  fallback: LanguageCode,
): One[] => {
  const inOwn = cards.filter((card) => card.language === language);
  return inOwn.length > 0 ? inOwn : cards.filter((card) => card.language === fallback);
};

/** The cards that are offered first in a language, each with the states of the light in which it is. */
export const firstCards = (
  all: Cards,
  language: LanguageCode,
  fallback: LanguageCode,
): (Card & { states: LampState[] })[] => {
  const known = byId(all);
  const first = all.first.flatMap(({ id, states }) => {
    const card = known.get(id);
    return card && states.length > 0 ? [{ ...card, states }] : [];
  });
  return readIn(first, language, fallback);
};

/** All cards that can be looked for in a language. */
export const cardsIn = (all: Cards, language: LanguageCode, fallback: LanguageCode): Card[] =>
  readIn(all.cards, language, fallback);

/** Where somebody stands after a card: what is offered, asked for, or to whom it goes. A person is always offered besides. */
export interface Step {
  /** With something asked for: what is shown once it was given. */
  offers: Card[];
  asks: Asks | null;
  passesTo: string | null;
}

/** What follows after a card; null: there is none of that id. */
export const stepAfter = (all: Cards, id: string): Step | null => {
  const known = byId(all);
  const card = known.get(id);
  if (!card) return null;
  const { leads } = card;
  return {
    offers: idsAfter(card).flatMap((one) => known.get(one) ?? []),
    asks: leads.to === 'ask' ? leads.asks : null,
    passesTo: leads.to === 'pass' ? leads.memberId : null,
  };
};

/** A card's answer and what follows from it, as it is told; its pictures come from elsewhere. */
export const toldOf = (all: Cards, card: Card) => {
  const { offers = [], asks = null } = stepAfter(all, card.id) ?? {};
  return {
    id: card.id,
    link: card.link,
    offers: offers.map(({ id, question }) => ({ id, question })),
    asks,
  };
};
