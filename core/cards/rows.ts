import { askedFields } from '../conversation';
import type { LanguageCode } from '../door-texts';
import type { LampState } from '../lamp';
import { cleanLine, cleanMessage } from '../text';
import {
  ANSWER_LONGEST,
  CARDS_MOST,
  type Card,
  type Cards,
  type Leads,
  QUESTION_LONGEST,
} from './cards';
import { withCard, withStates } from './changes';

export const cardColumns = [
  'question',
  'answer',
  'link',
  'language',
  'first',
  'leads to',
  'asks for',
  'passes to',
] as const;

/** A card as a row of a table: cells by the names of the columns. Pictures do not go with it. */
export type CardRow = Partial<Record<(typeof cardColumns)[number], string>>;

/** Why a row was not taken. */
export type CardRowRefusal =
  | 'question-empty'
  | 'question-too-long'
  | 'answer-too-long'
  | 'too-many'
  | 'leads-unknown'
  | 'person-unknown';

export interface RowsTaken {
  all: Cards;
  addedCount: number;
  changedCount: number;
  sameCount: number;
  /** Rows as a spreadsheet counts them. */
  refused: { row: number; question: string; why: CardRowRefusal }[];
}

const BETWEEN = ' | ';
const stateNames: readonly (readonly [LampState, string])[] = [
  ['lit', 'lit'],
  ['back-soon', 'back soon'],
  ['dark', 'dark'],
];

const keyOf = (question: string): string => cleanLine(question).toLowerCase();

/** The cards of a door as rows. `nameOf`: what a member is called. */
export const toCardRows = (all: Cards, nameOf: (memberId: string) => string): CardRow[] => {
  const questionOf = (id: string): string => all.cards.find((one) => one.id === id)?.question ?? '';
  const first = new Map(all.first.map(({ id, states }) => [id, states]));
  // Those that are shown first come first, in their order.
  const inOrder = [
    ...all.first.flatMap(({ id }) => all.cards.filter((card) => card.id === id)),
    ...all.cards.filter(({ id }) => !first.has(id)),
  ];
  return inOrder.map(({ id, question, answer, link, language, leads }) => ({
    question,
    answer,
    link,
    language,
    first: stateNames
      .filter(([state]) => first.get(id)?.includes(state))
      .map(([, name]) => name)
      .join(', '),
    'leads to':
      leads.to === 'cards'
        ? leads.ids.map(questionOf).join(BETWEEN)
        : leads.to === 'ask' && leads.next
          ? questionOf(leads.next)
          : '',
    'asks for':
      leads.to !== 'ask' ? '' : leads.asks.field === 'own' ? leads.asks.label : leads.asks.field,
    'passes to': leads.to === 'pass' ? nameOf(leads.memberId) : '',
  }));
};

const statesIn = (cell: string): LampState[] => {
  const said = cell.toLowerCase();
  if (/^(yes|y|true|1|x)$/.test(said.trim())) return stateNames.map(([state]) => state);
  return stateNames.filter(([, name]) => said.includes(name)).map(([state]) => state);
};

const textRefusal = (question: string, answer: string): CardRowRefusal | null => {
  if (question === '') return 'question-empty';
  if (question.length > QUESTION_LONGEST) return 'question-too-long';
  return answer.length > ANSWER_LONGEST ? 'answer-too-long' : null;
};

interface Known {
  language: LanguageCode;
  newId: () => string;
  /** Whom of the team a name means; null: nobody. */
  memberIdOf: (name: string) => string | null;
}

/** What follows after a row's card; a code where it cannot. */
const leadsOf = (
  row: CardRow,
  before: Leads,
  byKey: ReadonlyMap<string, string>,
  known: Known,
): Leads | CardRowRefusal => {
  const onTo = (row['leads to'] ?? '').split('|').map(keyOf).filter(Boolean);
  const ids = onTo.map((key) => byKey.get(key));
  if (ids.some((id) => id === undefined)) return 'leads-unknown';
  const [next = null] = ids;
  const asks = cleanLine(row['asks for'] ?? '');
  const person = cleanLine(row['passes to'] ?? '');
  if (person) {
    const memberId = known.memberIdOf(person);
    return memberId === null ? 'person-unknown' : { to: 'pass', memberId };
  }
  if (asks) {
    const field = askedFields.find((one) => one !== 'own' && one === asks.toLowerCase()) ?? 'own';
    return { to: 'ask', asks: { field, label: field === 'own' ? asks : '' }, next };
  }
  if (ids.length > 0) return { to: 'cards', ids: ids.flatMap((id) => id ?? []) };
  // A table that says nothing of it changes nothing of it.
  const isSaid = ['leads to', 'asks for', 'passes to'].some((name) => name in row);
  return isSaid ? { to: 'end' } : before;
};

/**
 * Takes rows in: one with the question of a card that there is changes that one, others are added. They may lead to one
 * another, whichever comes first.
 */
export const withCardRows = (
  before: Cards,
  rows: readonly { row: number; cells: CardRow }[],
  known: Known,
): RowsTaken => {
  const refused: RowsTaken['refused'] = [];
  const counts = { added: 0, changed: 0, same: 0 };
  let all = before;
  const idOf = new Map(before.cards.map(({ id, question }) => [keyOf(question), id]));
  const taken: { row: number; cells: CardRow; id: string }[] = [];
  for (const { row, cells } of rows) {
    const question = cleanLine(cells.question ?? '');
    const answer = cleanMessage(cells.answer ?? '');
    const id = idOf.get(keyOf(question));
    const isFull = id === undefined && all.cards.length >= CARDS_MOST;
    const why = textRefusal(question, answer) ?? (isFull ? 'too-many' : null);
    if (why) {
      refused.push({ row, question: question.slice(0, QUESTION_LONGEST), why });
      continue;
    }
    const card: Card = all.cards.find((one) => one.id === id) ?? {
      id: known.newId(),
      language: known.language,
      question,
      answer: '',
      link: '',
      pictureIds: [],
      leads: { to: 'end' },
    };
    const language = /^[a-z]{2,3}$/.test(cells.language ?? '') ? cells.language : card.language;
    const link = cells.link === undefined ? card.link : cleanLine(cells.link);
    all = withCard(all, { ...card, answer, link, language: language ?? card.language });
    if (cells.first !== undefined) all = withStates(all, card.id, statesIn(cells.first));
    idOf.set(keyOf(question), card.id);
    taken.push({ row, cells, id: card.id });
  }
  for (const { row, cells, id } of taken) {
    const card = all.cards.find((one) => one.id === id);
    if (!card) continue;
    const leads = leadsOf(cells, card.leads, idOf, known);
    if (typeof leads === 'string') refused.push({ row, question: card.question, why: leads });
    else all = withCard(all, { ...card, leads });
  }
  for (const id of new Set(taken.map((one) => one.id))) {
    const was = before.cards.find((one) => one.id === id);
    const now = all.cards.find((one) => one.id === id);
    const placeWas = before.first.find((one) => one.id === id);
    const placeNow = all.first.find((one) => one.id === id);
    const isSame =
      JSON.stringify(was) === JSON.stringify(now) &&
      JSON.stringify(placeWas) === JSON.stringify(placeNow);
    counts[was ? (isSame ? 'same' : 'changed') : 'added'] += 1;
  }
  return {
    all,
    addedCount: counts.added,
    changedCount: counts.changed,
    sameCount: counts.same,
    refused: refused.sort((a, b) => a.row - b.row),
  };
};
