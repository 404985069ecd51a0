import { createMatching, fits, isPitch } from '@porch/core/match';
import { picked } from '../picked';
import { given, stored } from '../stored';
import { english } from './english';
import { german } from './german';
import { storedGerman } from './stored-german';
import type { Writer } from './writer';

export type { Writer } from './writer';

export const writers: readonly Writer[] = [...english, ...german];

const SHOWN = 3;

/**
 * The texts of the business: as it has just begun, or as it is once it has picked some of them for other people's questions.
 */
const textsOf = (language: Writer['language'], hasLearned: boolean) => {
  const texts = createMatching();
  const own = language === 'en' ? stored : storedGerman;
  for (const [at, { answers, title, text }] of own.entries()) {
    const fields = [
      { text: title, weight: 3 },
      { text, weight: 1 },
    ];
    const asked = hasLearned && language === 'en' ? (picked[answers] ?? []) : [];
    texts.add({ id: `stored-${at}`, language, fields, asked });
  }
  for (const [at, { title, text }] of language === 'en' ? given.entries() : []) {
    const fields = [
      { text: title, weight: 2 },
      { text, weight: 0.5 },
    ];
    texts.add({ id: `given-${at}`, language, fields });
  }
  const answered = (id: string): string => {
    const [kind, at] = id.split('-');
    return (kind === 'stored' ? own : given)[Number(at)]?.answers ?? '';
  };
  return { texts, answered };
};

/** Everything that somebody wrote, with what would be offered for it, and what comes first without a threshold. */
const triedBy = ({ language, messages }: Writer, hasLearned: boolean) => {
  const { texts, answered } = textsOf(language, hasLearned);
  return messages.map(([message, right]) => {
    const best = texts.best(message, SHOWN * 3);
    const offered = isPitch(message) ? [] : fits(best, SHOWN).map(({ id }) => answered(id));
    const ranked = best.slice(0, SHOWN).map(({ id }) => answered(id));
    return { message, right, offered, ranked };
  });
};

/** Shares, 0 to 1, over all that some writers wrote. */
export interface Shares {
  withAnswer: number;
  without: number;
  /** The right answer is among the three that are offered. */
  found: number;
  /** The right answer is the first that is offered. */
  first: number;
  /** The right answer is among the best three, offered or not. */
  ranked: number;
  /** Nothing is offered for what nothing answers. */
  silent: number;
}

export const sharesOf = (some: readonly Writer[], hasLearned: boolean): Shares => {
  const all = some.flatMap((writer) => triedBy(writer, hasLearned));
  const asked = all.filter(({ right }) => right !== null);
  const rest = all.filter(({ right }) => right === null);
  const share = (of: typeof all, is: (one: (typeof all)[number]) => boolean): number =>
    of.filter(is).length / Math.max(1, of.length);
  return {
    withAnswer: asked.length,
    without: rest.length,
    found: share(asked, ({ right, offered }) => offered.includes(right ?? '')),
    first: share(asked, ({ right, offered }) => offered[0] === right),
    ranked: share(asked, ({ right, ranked }) => ranked.includes(right ?? '')),
    silent: share(rest, ({ offered }) => offered.length === 0),
  };
};

export const tunedOn = writers.filter(({ isTunedOn }) => isTunedOn);
export const keptOut = writers.filter(({ isTunedOn }) => !isTunedOn);
