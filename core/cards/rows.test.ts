import { cardOf } from '../test-kit/cards';
import { type Card, type Cards, problemsIn, toCardRows, withCardRows } from '.';

const card = (id: string, question: string, change: Partial<Card> = {}): Card =>
  cardOf(id, { question, ...change });

const all: Cards = {
  cards: [
    card('packed', 'How are plants packed?', { pictureIds: ['picture-1'] }),
    card('far', 'I live further away', {
      leads: { to: 'ask', asks: { field: 'own', label: 'Postcode' }, next: 'packed' },
    }),
    card('deliver', 'Do you deliver?', {
      link: 'https://quillfern.example/delivery',
      leads: { to: 'cards', ids: ['far', 'packed'] },
    }),
    card('order', 'Something about my order', { leads: { to: 'pass', memberId: 'ines' } }),
    card('call', 'Shall we call you?', {
      leads: { to: 'ask', asks: { field: 'phone', label: '' }, next: null },
    }),
  ],
  first: [
    { id: 'deliver', states: ['lit', 'back-soon'] },
    { id: 'order', states: ['lit', 'back-soon', 'dark'] },
  ],
};

let made = 0;
const known = {
  language: 'en',
  newId: () => {
    made += 1;
    return `new-${made}`;
  },
  memberIdOf: (name: string) => (name === 'Ines Varga' ? 'ines' : null),
};
const rowsFor = (cards: Cards) =>
  toCardRows(cards, () => 'Ines Varga').map((cells, at) => ({ row: at + 2, cells }));

describe('cards as a table', () => {
  it('have their questions, in order, and where they lead', () => {
    expect(toCardRows(all, () => 'Ines Varga').slice(0, 2)).toEqual([
      {
        question: 'Do you deliver?',
        answer: 'Answer deliver',
        link: 'https://quillfern.example/delivery',
        language: 'en',
        first: 'lit, back soon',
        'leads to': 'I live further away | How are plants packed?',
        'asks for': '',
        'passes to': '',
      },
      expect.objectContaining({ first: 'lit, back soon, dark', 'passes to': 'Ines Varga' }),
    ]);
  });

  it('are the same when they come back, and nothing is changed by it', () => {
    const taken = withCardRows(all, rowsFor(all), known);
    expect(taken).toMatchObject({ addedCount: 0, changedCount: 0, sameCount: 5, refused: [] });
    expect(taken.all).toEqual(all);
  });

  it('make the same tree where nothing was before', () => {
    const taken = withCardRows({ cards: [], first: [] }, rowsFor(all), known);
    expect(taken).toMatchObject({ addedCount: 5, refused: [] });
    expect(problemsIn(taken.all)).toEqual([]);
    expect(rowsFor(taken.all).map(({ cells }) => cells)).toEqual(
      rowsFor(all).map(({ cells }) => cells),
    );
  });

  it('change the card whose question it is, and nothing that the table does not say', () => {
    const cells = { question: 'how are  plants packed?', answer: 'In straw.' };
    const { all: now, ...counts } = withCardRows(all, [{ row: 2, cells }], known);
    expect(counts).toMatchObject({ addedCount: 0, changedCount: 1 });
    expect(now.cards[0]).toEqual({ ...all.cards[0], answer: 'In straw.' });
    expect(now.first).toEqual(all.first);
  });

  it.each([
    ['has no question', { question: ' ', answer: 'x' }, 'question-empty'],
    ['has a long question', { question: 'x'.repeat(81) }, 'question-too-long'],
    ['has a long answer', { question: 'Why?', answer: 'x'.repeat(4_001) }, 'answer-too-long'],
    ['leads to nothing', { question: 'Why?', answer: 'x', 'leads to': 'Nowhere' }, 'leads-unknown'],
    ['is for a stranger', { question: 'Why?', answer: 'x', 'passes to': 'Bob' }, 'person-unknown'],
  ])('tell which row was not taken whole where it %s', (_where, cells, why) => {
    const { refused } = withCardRows(all, [{ row: 7, cells }], known);
    expect(refused).toMatchObject([{ row: 7, why }]);
  });

  it('are no more than there may be', () => {
    const rows = Array.from({ length: 80 }, (_none, at) => ({
      row: at + 2,
      cells: { question: `Question ${at}`, answer: 'x', first: at < 3 ? 'yes' : '' },
    }));
    const taken = withCardRows({ cards: [], first: [] }, rows, known);
    expect(taken.addedCount).toBe(60);
    expect(taken.all.first).toHaveLength(3);
    expect(taken.refused).toHaveLength(20);
    expect(new Set(taken.refused.map(({ why }) => why))).toEqual(new Set(['too-many']));
  });
});
