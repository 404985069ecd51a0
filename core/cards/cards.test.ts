import fc from 'fast-check';
import type { LampState } from '../lamp';
import { cardOf } from '../test-kit/cards';
import {
  CARDS_MOST,
  type Card,
  type Cards,
  cardsIn,
  FIRST_CARDS_MOST,
  FURTHER_MOST,
  firstCards,
  type Leads,
  problemsIn,
  STEPS_MOST,
  stepAfter,
  treeOf,
} from '.';

const card = (id: string, leads: Leads = { to: 'end' }, change: Partial<Card> = {}): Card =>
  cardOf(id, { leads, ...change });

const always: LampState[] = ['lit', 'back-soon', 'dark'];

const of = (cards: Card[], first: string[] = [cards[0]?.id ?? '']): Cards => ({
  cards,
  first: first.map((id) => ({ id, states: [...always] })),
});

const toCards = (...ids: string[]): Leads => ({ to: 'cards', ids });

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
    expect(stepAfter(delivery, 'far')).toMatchObject({
      offers: [{ id: 'who' }],
      asks: { label: 'Postcode' },
    });
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

  it('is offered in its order, with the states of the light in which it is', () => {
    const all: Cards = {
      cards: [card('a'), card('b'), card('c')],
      first: [
        { id: 'c', states: ['lit'] },
        { id: 'a', states: ['dark', 'back-soon'] },
        { id: 'b', states: [] },
        { id: 'gone', states: always },
      ],
    };
    expect(firstCards(all, 'en', 'en').map(({ id, states }) => [id, ...states])).toEqual([
      ['c', 'lit'],
      ['a', 'dark', 'back-soon'],
    ]);
  });

  it('is offered in the language that somebody reads, or where there is none in the door\u2019s own', () => {
    const all = of([card('a'), card('b', { to: 'end' }, { language: 'de' })], ['a', 'b']);
    const ids = (language: string) => firstCards(all, language, 'en').map(({ id }) => id);
    expect([ids('en'), ids('de'), ids('pl')]).toEqual([['a'], ['b'], ['a']]);
    expect(cardsIn(all, 'de', 'en').map(({ id }) => id)).toEqual(['b']);
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
    [
      'asks for what has no name',
      of([card('a', { to: 'ask', asks: { field: 'own', label: ' ' }, next: null })]),
      [['a', 'label-empty']],
    ],
    [
      'asks with too many words',
      of([card('a', { to: 'ask', asks: { field: 'own', label: 'x'.repeat(81) }, next: null })]),
      [['a', 'label-too-long']],
    ],
    [
      'goes on to no page',
      of([card('a', { to: 'end' }, { link: 'javascript:alert(1)' })]),
      [['a', 'link-unknown']],
    ],
    [
      'has too many pictures',
      of([card('a', { to: 'end' }, { pictureIds: ['1', '2', '3', '4', '5', '6', '7'] })]),
      [['a', 'too-many-pictures']],
    ],
  ] as [string, Cards, string[][]][])('is not shown where it %s', (_how, all, problems) => {
    expect(problemsIn(all).map(({ id, code }) => [id, code])).toEqual(problems);
  });

  it('is bounded', () => {
    const many = (count: number) =>
      Array.from({ length: count }, (_none, at) => card(`card-${at}`));
    const first = (count: number) => many(count).map(({ id }) => id);
    expect(problemsIn(of(many(CARDS_MOST), first(FIRST_CARDS_MOST)))).toEqual([]);
    const german = many(20).map((one, at) => (at < 10 ? one : { ...one, language: 'de' }));
    expect(problemsIn(of(german, first(20)))).toEqual([]);
    expect(problemsIn(of(many(CARDS_MOST + 1)))).toEqual([{ id: '', code: 'too-many' }]);
    const crowded = of(many(20), first(FIRST_CARDS_MOST + 1));
    expect(problemsIn(crowded)).toEqual([{ id: '', code: 'too-many-first' }]);
  });

  it('is not counted out where everything leads to everything', () => {
    const ids = Array.from({ length: CARDS_MOST }, (_none, at) => `card-${at}`);
    const all = of(
      ids.map((id) => card(id, toCards(...ids.filter((one) => one !== id)))),
      ids,
    );
    expect(treeOf(all)).toEqual([]);
    const codes = new Set(problemsIn(all).map(({ code }) => code));
    expect([...codes].sort()).toEqual(['too-many-first', 'too-many-further']);
    const fewer = ids.map((id) => card(id, toCards(...ids.slice(0, FURTHER_MOST))));
    expect(problemsIn(of(fewer, ids.slice(0, FIRST_CARDS_MOST))).length).toBeGreaterThan(0);
  });

  it('ends, however its cards lead to one another, and is never deeper than it may be without saying so', () => {
    const ids = ['a', 'b', 'c', 'd', 'e'];
    const leadsTo = fc
      .subarray(ids)
      .map((some): Leads => (some.length > 0 ? toCards(...some) : { to: 'end' }));
    fc.assert(
      fc.property(fc.array(leadsTo, { minLength: 5, maxLength: 5 }), (all) => {
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
