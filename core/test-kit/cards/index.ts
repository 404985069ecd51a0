import type { Card } from '../../cards';

/** A card that says something and leads nowhere, with what a test changes of it. */
export const cardOf = (id: string, change: Partial<Card> = {}): Card => ({
  id,
  language: 'en',
  question: `Question ${id}`,
  answer: `Answer ${id}`,
  link: '',
  pictureIds: [],
  leads: { to: 'end' },
  ...change,
});
