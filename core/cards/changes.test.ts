import { cardOf as card } from '../test-kit/cards';
import { type Cards, withCard, withMoved, withoutCard, withStates } from '.';

const all: Cards = {
  cards: [
    card('a', { leads: { to: 'cards', ids: ['b', 'c'] } }),
    card('b', {
      leads: { to: 'ask', asks: { field: 'own', label: 'Postcode' }, next: 'c' },
    }),
    card('c'),
  ],
  first: ['a', 'b', 'c'].map((id) => ({ id, states: ['lit'] })),
};
const firsts = ({ first }: Cards): string[] => first.map(({ id }) => id);

describe('the cards of a door', () => {
  it('are added at the end, or put in the place of what they were', () => {
    expect(withCard(all, card('d')).cards.map(({ id }) => id)).toEqual(['a', 'b', 'c', 'd']);
    const changed = withCard(all, card('b', { question: 'Otherwise' }));
    expect(changed.cards.map(({ question }) => question)).toEqual([
      'Question a',
      'Otherwise',
      'Question c',
    ]);
  });

  it('lead nowhere where one of them has gone', () => {
    const left = withoutCard(all, 'c');
    expect(left.cards.map(({ leads }) => leads)).toEqual([
      { to: 'cards', ids: ['b'] },
      { to: 'ask', asks: { field: 'own', label: 'Postcode' }, next: null },
    ]);
    expect(firsts(left)).toEqual(['a', 'b']);
    expect(withoutCard(left, 'b').cards[0]?.leads).toEqual({ to: 'end' });
  });

  it('are offered first while the light is so, and not at all in no state', () => {
    expect(withStates(all, 'b', ['dark']).first[1]).toEqual({ id: 'b', states: ['dark'] });
    const without = withStates(all, 'b', []);
    expect(firsts(without)).toEqual(['a', 'c']);
    expect(firsts(withStates(without, 'b', ['lit']))).toEqual(['a', 'c', 'b']);
  });

  it('change places, up and down', () => {
    expect(firsts(withMoved(all, 'a', 'c'))).toEqual(['b', 'c', 'a']);
    expect(firsts(withMoved(all, 'c', 'a'))).toEqual(['c', 'a', 'b']);
    expect(firsts(withMoved(all, 'a', 'gone'))).toEqual(['a', 'b', 'c']);
    expect(firsts(withMoved(all, 'gone', 'a'))).toEqual(['a', 'b', 'c']);
  });
});
