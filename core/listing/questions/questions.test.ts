import { type Card, type Cards, problemsIn } from '../../cards';
import { cardOf as card } from '../../test-kit/cards';
import {
  type Agreed,
  agreedWithout,
  reconcileQuestions,
  roomFor,
  type ToldCard,
  toldCards,
  withListed,
} from '.';

const asked = (cards: Card[], first = cards.map(({ id }) => id)): Cards => ({
  cards,
  first: first.map((id) => ({ id, states: ['lit', 'back-soon', 'dark'] })),
});
const ours = (cardId: string, question: string, answer = `${question}!`): ToldCard => ({
  cardId,
  question,
  answer,
});
const theirs = (id: string, question: string, answer = `${question}!`) => ({
  id,
  question,
  answer,
});
const agreed = (id: string, question: string, answer?: string): Agreed => ({
  ...theirs(id, question, answer),
  cardId: id,
});
const meet = (
  before: Agreed[],
  cards: ToldCard[],
  listed: ReturnType<typeof theirs>[],
  room = 10,
) => {
  const made: string[] = [];
  const newId = (): string => `made-${made.push('')}`;
  return reconcileQuestions(before, cards, listed, { room, newId });
};

describe('questions of a listing and cards of a door', () => {
  it('are joined where they meet: each learns what only the other has', () => {
    const met = meet([], [ours('a', 'Parking')], [theirs('7', 'Dogs')]);
    expect(met.write).toEqual([theirs('a', 'Parking'), theirs('7', 'Dogs')]);
    expect(met.changes).toEqual([
      { do: 'add', cardId: 'made-1', question: 'Dogs', answer: 'Dogs!' },
    ]);
    expect(met.agreed).toEqual([
      { ...theirs('a', 'Parking'), cardId: 'a' },
      { ...theirs('7', 'Dogs'), cardId: 'made-1' },
    ]);
  });

  it('are one where they ask the same; what we answer counts, and theirs is told', () => {
    const met = meet([], [ours('a', 'Parking', 'Behind it')], [theirs('7', ' parking', 'None')]);
    expect(met.write).toEqual([theirs('7', 'Parking', 'Behind it')]);
    expect(met.changes).toEqual([]);
    expect(met.outvoted).toEqual([theirs('7', 'parking', 'None')]);
  });

  it('need nothing where both say the same as before', () => {
    const met = meet([agreed('a', 'Parking')], [ours('a', 'Parking')], [theirs('a', 'Parking')]);
    expect(met).toMatchObject({ write: null, changes: [], outvoted: [], notTaken: [] });
  });

  it('follow whichever was changed, and each its own part of one', () => {
    const before = [agreed('a', 'Parking'), agreed('b', 'Dogs')];
    const met = meet(
      before,
      [ours('a', 'Where to park', 'Parking!'), ours('b', 'Dogs')],
      [theirs('a', 'Parking', 'In the yard'), theirs('b', 'Dogs', 'On a lead')],
    );
    expect(met.write).toEqual([
      theirs('a', 'Where to park', 'In the yard'),
      theirs('b', 'Dogs', 'On a lead'),
    ]);
    expect(met.changes).toMatchObject([
      { do: 'change', cardId: 'a', to: { answer: 'In the yard' } },
      { do: 'change', cardId: 'b', to: { answer: 'On a lead' } },
    ]);
    expect(met.outvoted).toEqual([]);
  });

  it('say what we say where both changed the same', () => {
    const met = meet(
      [agreed('a', 'Parking')],
      [ours('a', 'Parking', 'Ours')],
      [theirs('a', 'Parking', 'Theirs')],
    );
    expect(met.write).toEqual([theirs('a', 'Parking', 'Ours')]);
    expect(met.outvoted).toEqual([theirs('a', 'Parking', 'Theirs')]);
  });

  it('are taken away there where they are here, and shown first no more where they are there', () => {
    const before = [agreed('a', 'Parking'), agreed('b', 'Dogs'), agreed('c', 'Vouchers')];
    const met = meet(
      before,
      [ours('b', 'Dogs'), ours('c', 'Vouchers', 'From ten pounds')],
      [theirs('a', 'Parking')],
    );
    expect(met.changes).toEqual([{ do: 'take-out', cardId: 'b' }]);
    // What was changed here is not gone because it is there.
    expect(met.write).toEqual([theirs('c', 'Vouchers', 'From ten pounds')]);
    expect(met.agreed.map(({ cardId }) => cardId)).toEqual(['c']);
  });

  it('are told anew to a listing that has lost all of them at once, and taken for gone where it is the last one', () => {
    const before = [agreed('a', 'Parking'), agreed('b', 'Dogs')];
    const cards = [ours('a', 'Parking'), ours('b', 'Dogs')];
    const lost = meet(before, cards, [theirs('7', 'Vouchers')]);
    expect(lost.changes).toMatchObject([{ do: 'add', question: 'Vouchers' }]);
    expect(lost.write?.map(({ id }) => id)).toEqual(['a', 'b', '7']);
    expect(lost.agreed).toHaveLength(3);
    expect(meet([agreed('a', 'Parking')], [ours('a', 'Parking')], []).changes).toEqual([
      { do: 'take-out', cardId: 'a' },
    ]);
  });

  it('stay on the listing where no card can be made of them', () => {
    const long = theirs('7', 'x'.repeat(81));
    const met = meet([], [ours('a', 'Parking')], [long, theirs('8', 'Dogs')], 0);
    expect(met.changes).toEqual([]);
    expect(met.write).toEqual([theirs('a', 'Parking'), long, theirs('8', 'Dogs')]);
    expect(met.notTaken).toHaveLength(2);
  });

  it('become cards as far as there is room, one that is taken out making some', () => {
    const before = [agreed('a', 'Parking'), agreed('b', 'Dogs')];
    const listed = [theirs('a', 'Parking'), theirs('7', 'Vouchers'), theirs('8', 'Toilets')];
    const met = meet(before, [ours('a', 'Parking'), ours('b', 'Dogs')], listed, 0);
    expect(met.changes.map((change) => change.do)).toEqual(['take-out', 'add']);
    expect(met.notTaken).toEqual([theirs('8', 'Toilets')]);
  });

  it('are left as they stand there where a card cannot follow, again and again', () => {
    const long = theirs('a', 'Parking', 'x'.repeat(4_001));
    const once = meet([agreed('a', 'Parking')], [ours('a', 'Parking')], [long]);
    expect(once).toMatchObject({ write: null, changes: [], notTaken: [long] });
    expect(meet(once.agreed, [ours('a', 'Parking')], [long])).toEqual(once);
  });

  it('that were written there and not noted here are known by their id', () => {
    const met = meet([], [ours('a', 'Parking')], [theirs('a', 'Parking')]);
    expect(met).toMatchObject({ write: null, changes: [], outvoted: [] });
  });

  it('come to rest: told to each other once more nothing is to be done', () => {
    const all = asked([
      card('a', {
        question: 'Parking',
        answer: '# Where\n\n\n\n\n- yard ',
        link: 'https://a.example',
      }),
      card('b', { question: '  Dogs\u202e ' }),
    ]);
    const listed = [theirs('7', 'Vouchers', '# Which?\nAny'), theirs('8', 'Parking', 'Nowhere')];
    const first = meet([], toldCards(all, 'en', 1_000).told, listed);
    const after = withListed(all, first.changes, 'en').all;
    const second = meet(first.agreed, toldCards(after, 'en', 1_000).told, first.write ?? listed);
    const again = withListed(after, second.changes, 'en').all;
    expect(again).toEqual(after);
    const third = meet(second.agreed, toldCards(again, 'en', 1_000).told, second.write ?? []);
    expect(third).toMatchObject({ write: null, changes: [], outvoted: [] });
  });
});

describe('what a listing is told of cards', () => {
  it('is words alone, of those shown first in its language that answer by themselves', () => {
    const all = asked(
      [
        card('a', {
          question: 'Guide',
          answer: '# How\n[picture 1]\n1. Wait',
          link: 'https://a.example',
        }),
        card('b', { question: 'Leads on', answer: '', leads: { to: 'cards', ids: ['a'] } }),
        card('c', { language: 'de' }),
        card('d', { question: 'Long', answer: 'x'.repeat(50) }),
        card('e'),
      ],
      ['a', 'b', 'c', 'd'],
    );
    expect(toldCards(all, 'en', 40)).toEqual({
      told: [{ cardId: 'a', question: 'Guide', answer: 'How\n1. Wait\nhttps://a.example' }],
      tooLong: ['Long'],
    });
  });
});

describe('cards with what a listing changed', () => {
  const was = { question: 'Parking', answer: 'Yard\nhttps://a.example' };
  const all = asked([
    card('a', { question: 'Parking', answer: 'Yard', link: 'https://a.example' }),
  ]);
  const change = (to: object) =>
    withListed(all, [{ do: 'change', cardId: 'a', was, to }], 'en').all.cards[0];

  it('keep their link where the answer still says it, and lose it with that line', () => {
    expect(change({ answer: 'Lane\nhttps://a.example' })).toMatchObject({
      answer: 'Lane',
      link: 'https://a.example',
    });
    expect(change({ answer: 'Lane' })).toMatchObject({ answer: 'Lane', link: '' });
    expect(change({ question: 'Where?' })).toMatchObject({ question: 'Where?', answer: 'Yard' });
  });

  it('are left where somebody has changed them meanwhile', () => {
    const was = { question: 'Parking', answer: 'Old' };
    const otherwise = { do: 'change', cardId: 'a', was, to: { answer: 'New' } } as const;
    const gone = { ...otherwise, cardId: 'gone' };
    const left = [otherwise, gone];
    expect(withListed(all, left, 'en')).toEqual({ all, left });
  });

  it('take ten at most, each once, and stay such as may be shown', () => {
    const adds = Array.from({ length: 12 }, (_none, at) => ({
      do: 'add' as const,
      cardId: `added-${at % 11}`,
      question: 'Dogs',
      answer: 'Yes',
    }));
    const { all: full, left } = withListed(all, adds, 'en');
    expect(left).toHaveLength(3);
    expect(full.cards).toHaveLength(10);
    expect(roomFor(full, 'en')).toBe(0);
    expect(problemsIn(full)).toEqual([]);
    const out = withListed(full, [{ do: 'take-out', cardId: 'a' }], 'en').all;
    expect([out.cards.length, out.first.length]).toEqual([10, 9]);
  });

  it('that could not follow agree on nothing new: what was to be one stays on the listing', () => {
    const before = [agreed('a', 'Parking', 'Yard')];
    const changed = { ...agreed('a', 'Parking', 'Lane') };
    const added = { ...theirs('7', 'Dogs'), cardId: 'made-1' };
    const left = [
      { do: 'change' as const, cardId: 'a', was, to: { answer: 'Lane' } },
      { do: 'add' as const, cardId: 'made-1', question: 'Dogs', answer: 'Dogs!' },
    ];
    expect(agreedWithout([changed, added], [], before)).toEqual([changed, added]);
    expect(agreedWithout([changed, added], left, before)).toEqual(before);
    const listed = [theirs('a', 'Parking', 'Lane'), theirs('7', 'Dogs')];
    const next = meet(before, [ours('a', 'Parking', 'Gate')], listed, 0);
    expect(next.write).toEqual([theirs('a', 'Parking', 'Gate'), theirs('7', 'Dogs')]);
    expect([next.outvoted, next.notTaken]).toEqual([
      [theirs('a', 'Parking', 'Lane')],
      [theirs('7', 'Dogs')],
    ]);
  });
});
