import type { LampState } from '../lamp';
import type { Card, Cards, Leads } from './cards';

const without = (leads: Leads, id: string): Leads => {
  switch (leads.to) {
    case 'cards': {
      const ids = leads.ids.filter((one) => one !== id);
      return ids.length > 0 ? { ...leads, ids } : { to: 'end' };
    }
    case 'ask':
      return { ...leads, next: leads.next === id ? null : leads.next };
    default:
      return leads;
  }
};

/** With a card put in place, or added at the end. */
export const withCard = (all: Cards, card: Card): Cards => ({
  ...all,
  cards: all.cards.some(({ id }) => id === card.id)
    ? all.cards.map((one) => (one.id === card.id ? card : one))
    : [...all.cards, card],
});

/** Without a card; nothing leads to it any more. */
export const withoutCard = (all: Cards, id: string): Cards => ({
  cards: all.cards
    .filter((card) => card.id !== id)
    .map((card) => ({ ...card, leads: without(card.leads, id) })),
  first: all.first.filter((one) => one.id !== id),
});

/** With a card offered first while the light is so; in no state: not first at all. */
export const withStates = (all: Cards, id: string, states: LampState[]): Cards => {
  if (states.length === 0) return { ...all, first: all.first.filter((one) => one.id !== id) };
  return {
    ...all,
    first: all.first.some((one) => one.id === id)
      ? all.first.map((one) => (one.id === id ? { id, states } : one))
      : [...all.first, { id, states }],
  };
};

/** With a first card in the place of another one; those between make room. */
export const withMoved = (all: Cards, id: string, toPlaceOf: string): Cards => {
  const to = all.first.findIndex((one) => one.id === toPlaceOf);
  const moved = all.first.find((one) => one.id === id);
  if (!moved || to === -1) return all;
  const others = all.first.filter((one) => one.id !== id);
  return { ...all, first: [...others.slice(0, to), moved, ...others.slice(to)] };
};
