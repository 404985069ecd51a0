import fc from 'fast-check';
import {
  CARDS_MOST,
  type Card,
  type Cards,
  FIRST_CARDS_MOST,
  firstCards,
  problemsIn,
  STEPS_MOST,
  stepAfter,
  type Then,
  treeOf,
} from '.';

const card = (id: string, then: Then = { to: 'end' }, change: Partial<Card> = {}): Card => ({
  id,
  question: `Question ${id}`,
  answer: `Answer ${id}`,
  link: '',
  pictureId: null,
  then,
  ...change,
});

const always = ['lit', 'back-soon', 'dark'] as const;

const of = (cards: Card[], first: string[] = [cards[0]?.id ?? '']): Cards => ({
  cards,
  first: first.map((id) => ({ id, states: always })),
});

const toCards = (...ids: string[]): Then => ({ to: 'cards', ids });

describe('what is asked often', () => {
  const delivery = of([
    card('delivery', toCards('far', 'cost')),
    card('far', { to: 'ask', asks: { field: 'own', label: 'Postcode' }, next: 'who' }),
    card('cost'),
    card('who', { to: 'pass', memberId: 'ines' }),
  ]);

  it('leads on step by step: to further cards, a detail, somebody, or an end', () => {
    expect(problemsIn(delivery)).toEqual([]);
    expect(stepAfter(delivery, 'delivery')?.offers.map(({ id }) => id)).toEqual(['far', 'cost']);
    expect(stepAfter(delivery, 'far')).toMatchObject({ offers: [], asks: { label: 'Postcode' } });
    expect(stepAfter(delivery, 'who')).toMatchObject({ passesTo: 'ines' });
    expect(stepAfter(delivery, 'cost')).toEqual({ offers: [], asks: null, passesTo: null });
    expect(stepAfter(delivery, 'nothing')).toBeNull();
  });

  it('is drawn as a tree, each card below what leads to it', () => {
    expect(treeOf(delivery).map(({ card: { id }, depth }) => `${depth} ${id}`)).toEqual([
      '0 delivery',
      '1 far',
      '2 who',
      '1 cost',
    ]);
  });

  it('is offered in its order, while the light is so', () => {
    const all: Cards = {
      cards: [card('a'), card('b'), card('c')],
      first: [
        { id: 'c', states: ['lit'] },
        { id: 'a', states: ['dark', 'back-soon'] },
        { id: 'b', states: always },
      ],
    };
    expect(firstCards(all, 'lit').map(({ id }) => id)).toEqual(['c', 'b']);
    expect(firstCards(all, 'dark').map(({ id }) => id)).toEqual(['a', 'b']);
  });

  it.each([
    ['leads back to itself', of([card('a', toCards('a'))]), [['a', 'leads-back']]],
    [
      'leads back over others',
      of([card('a', toCards('b')), card('b', toCards('a'))]),
      [['a', 'leads-back']],
    ],
    [
      'is too deep',
      of([card('a', toCards('b')), card('b', toCards('c')), card('c', toCards('d')), card('d')]),
      [['d', 'too-deep']],
    ],
    ['leads to what is not there', of([card('a', toCards('gone'))]), [['a', 'card-unknown']]],
    ['leads nowhere', of([card('a', toCards())]), [['a', 'nowhere']]],
    ['begins with what is not there', of([card('a')], ['a', 'b']), [['b', 'card-unknown']]],
    [
      'says nothing',
      of([card('a', { to: 'end' }, { question: ' ', answer: '' })]),
      [
        ['a', 'question-empty'],
        ['a', 'answer-empty'],
      ],
    ],
    [
      'says too much',
      of([card('a', { to: 'end' }, { question: 'x'.repeat(81), answer: 'x'.repeat(4_001) })]),
      [
        ['a', 'question-too-long'],
        ['a', 'answer-too-long'],
      ],
    ],
  ] as [string, Cards, string[][]][])('is not shown where it %s', (_how, all, problems) => {
    expect(problemsIn(all).map(({ id, code }) => [id, code])).toEqual(problems);
  });

  it('is bounded', () => {
    const many = (count: number) =>
      Array.from({ length: count }, (_none, at) => card(`card-${at}`));
    const first = (count: number) => many(count).map(({ id }) => id);
    expect(problemsIn(of(many(CARDS_MOST), first(FIRST_CARDS_MOST)))).toEqual([]);
    for (const all of [of(many(CARDS_MOST + 1)), of(many(20), first(FIRST_CARDS_MOST + 1))]) {
      expect(problemsIn(all)).toEqual([{ id: '', code: 'too-many' }]);
    }
  });

  it('ends, however its cards lead to one another, and is never deeper than it may be without saying so', () => {
    const ids = ['a', 'b', 'c', 'd', 'e'];
    const thens = fc
      .subarray(ids)
      .map((some): Then => (some.length > 0 ? toCards(...some) : { to: 'end' }));
    fc.assert(
      fc.property(fc.array(thens, { minLength: 5, maxLength: 5 }), (all) => {
        const cards = of(ids.map((id, at) => card(id, all[at])));
        const isTooDeep = treeOf(cards).some(
          ({ depth, leadsBack }) => depth >= STEPS_MOST && !leadsBack,
        );
        const codes = problemsIn(cards).map(({ code }) => code);
        expect(codes.includes('too-deep')).toBe(isTooDeep);
      }),
    );
  });
});
