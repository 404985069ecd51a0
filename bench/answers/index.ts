import { createMatching, fits, tokensOf } from '@porch/core/match';
import { messages } from './messages';
import { otherwise } from './otherwise';
import { picked } from './picked';
import { given, stored } from './stored';

export const halves = ['tuned', 'kept out'] as const;
export type Half = (typeof halves)[number];

const SHOWN = 3;

/** Of every two messages one was looked at while the threshold was chosen, and the other was not. */
const isIn = (half: Half, at: number): boolean => (at % 2 === 0) === (half === 'tuned');

const stemsOf = (text: string): Set<string> =>
  new Set(tokensOf(text, 'en').map(({ stem }) => stem));
/** By these it is known which words are everywhere; while one is tried it is not among them. */
const others = [
  ...messages.filter((_one, at) => at % 2 === 0).map(([message]) => message),
  ...otherwise,
].map(stemsOf);

const matching = (leaving: string | null) => {
  const own = leaving === null ? new Set<string>() : stemsOf(leaving);
  const counts = new Map<string, number>();
  for (const stems of others)
    for (const stem of stems) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  const texts = createMatching({
    textCount: others.length,
    textsWith: (stem) => (counts.get(stem) ?? 0) - (own.has(stem) ? 1 : 0),
  });
  for (const [at, { answers, title, text }] of stored.entries()) {
    const fields = [
      { text: title, weight: 3 },
      { text, weight: 1 },
    ];
    const asked = picked[answers] ?? [];
    texts.add({ id: `stored-${at}`, language: 'en', fields, asked });
  }
  for (const [at, { title, text }] of given.entries()) {
    const fields = [
      { text: title, weight: 2 },
      { text, weight: 0.5 },
    ];
    texts.add({ id: `given-${at}`, language: 'en', fields });
  }
  return texts;
};

const answered = (id: string): string => {
  const [kind, at] = id.split('-');
  return (kind === 'stored' ? stored : given)[Number(at)]?.answers ?? '';
};

export interface Tried {
  message: string;
  right: string | null;
  /** What each of those that are offered answers; and how well they fit. */
  offered: { answers: string; fit: number }[];
  isRight: boolean;
}

/** Every message of a half, with what would be offered. */
export const tried = (half: Half): Tried[] =>
  messages
    .filter((_one, at) => isIn(half, at))
    .map(([message, right]) => {
      const texts = matching(half === 'tuned' ? message : null);
      const offered = fits(texts.best(message, SHOWN * 3), SHOWN).map(({ id, fit }) => ({
        answers: answered(id),
        fit,
      }));
      const isRight =
        right === null ? offered.length === 0 : offered.some((one) => one.answers === right);
      return { message, right, offered, isRight };
    });

/** Of those that have an answer the share that is offered it, and of those that have none the share that is offered nothing. */
export const counted = (all: readonly Tried[]) => {
  const share = (some: readonly Tried[]): number =>
    some.filter(({ isRight }) => isRight).length / Math.max(1, some.length);
  const withAnswer = all.filter(({ right }) => right !== null);
  const without = all.filter(({ right }) => right === null);
  return {
    withAnswer: withAnswer.length,
    without: without.length,
    found: share(withAnswer),
    silent: share(without),
  };
};
