import type { LampState } from '../lamp';

/** What follows after a card was read. */
export type Then =
  | { to: 'end' }
  /** Further cards, in this order. */
  | { to: 'cards'; ids: readonly string[] }
  /** A detail that is asked for, and what follows once it was given; null: nothing. */
  | { to: 'ask'; asks: Asks; next: string | null }
  /** Somebody of the team for whom it is. */
  | { to: 'pass'; memberId: string };

/** What a card asks for: one of the guest book's own fields, or something in the owner's words. */
export interface Asks {
  field: 'name' | 'email' | 'phone' | 'own';
  /** The owner's words; empty where the field says it. */
  label: string;
}

/** A question that is asked often, with the answer that the owner wrote. */
export interface Card {
  id: string;
  /** What stands on its button. */
  question: string;
  answer: string;
  /** A page to go on with; empty: none. */
  link: string;
  pictureId: string | null;
  then: Then;
}

/** The cards of a door: all of them, and which are offered first, in their order, while the light is so. */
export interface Cards {
  cards: readonly Card[];
  first: readonly { id: string; states: readonly LampState[] }[];
}

export const FIRST_CARDS_MOST = 10;
/** From a first card on; whoever taps oftener would rather talk to somebody. */
export const STEPS_MOST = 3;
export const CARDS_MOST = 60;
export const QUESTION_LONGEST = 80;
export const ANSWER_LONGEST = 4_000;

/** Something in a door's cards that is not right: of which card, and what. */
export interface CardProblem {
  id: string;
  code:
    | 'question-empty'
    | 'question-too-long'
    | 'answer-empty'
    | 'answer-too-long'
    | 'card-unknown'
    | 'leads-back'
    | 'too-deep'
    | 'nowhere'
    | 'too-many';
}

const idsAfter = ({ then }: Card): readonly string[] => {
  switch (then.to) {
    case 'cards':
      return then.ids;
    case 'ask':
      return then.next === null ? [] : [then.next];
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

/** The cards of a door as a tree, from top to bottom as it is drawn. A card that several lead to stands below each of them. */
export const treeOf = (all: Cards): Branch[] => {
  const known = byId(all);
  return all.first.flatMap(({ id }) => {
    const card = known.get(id);
    return card ? branchesFrom(card, known, []) : [];
  });
};

const textProblems = ({ id, question, answer, then }: Card): CardProblem[] => {
  const found: (CardProblem['code'] | false)[] = [
    question.trim() === '' && 'question-empty',
    question.length > QUESTION_LONGEST && 'question-too-long',
    answer.trim() === '' && then.to === 'end' && 'answer-empty',
    answer.length > ANSWER_LONGEST && 'answer-too-long',
    then.to === 'cards' && then.ids.length === 0 && 'nowhere',
  ];
  return found.flatMap((code) => (code ? [{ id, code }] : []));
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
  const isFull = all.first.length > FIRST_CARDS_MOST || all.cards.length > CARDS_MOST;
  const found = [
    ...all.cards.flatMap(textProblems),
    ...missing,
    ...all.first.flatMap(({ id }): CardProblem[] =>
      known.has(id) ? [] : [{ id, code: 'card-unknown' }],
    ),
    ...ofTree,
    ...(isFull ? [{ id: '', code: 'too-many' as const }] : []),
  ];
  const keys = new Set<string>();
  return found.filter(({ id, code }) => !keys.has(`${id} ${code}`) && keys.add(`${id} ${code}`));
};

/** The cards that are offered first while the light is so. */
export const firstCards = (all: Cards, state: LampState): Card[] => {
  const known = byId(all);
  return all.first.flatMap(({ id, states }) => {
    const card = known.get(id);
    return card && states.includes(state) ? [card] : [];
  });
};

/** Where somebody stands after a card: what is offered, asked for, or to whom it goes. A person is always offered besides. */
export const stepAfter = (
  all: Cards,
  id: string,
): { offers: Card[]; asks: Asks | null; passesTo: string | null } | null => {
  const known = byId(all);
  const card = known.get(id);
  if (!card) return null;
  const { then } = card;
  return {
    offers: then.to === 'cards' ? then.ids.flatMap((one) => known.get(one) ?? []) : [],
    asks: then.to === 'ask' ? then.asks : null,
    passesTo: then.to === 'pass' ? then.memberId : null,
  };
};
