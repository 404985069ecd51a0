import { tokensOf } from './tokens';

/** One part of a stored text: a title says more of what it is about than its words. */
export interface Field {
  text: string;
  weight: number;
}

/** A text that can be offered. */
export interface Stored {
  id: string;
  /** ISO 639. */
  language: string;
  fields: readonly Field[];
}

export interface Match {
  id: string;
  /**
   * How much of what was asked is answered by it, and how much speaks for it at all: the weighted geometric mean of both,
   * from 0 (nothing) to about 1. One word of a long story is little, and so is the only word of a short one that is everywhere.
   */
  fit: number;
  /** Stems of what was asked that it has. */
  stems: ReadonlySet<string>;
}

/**
 * BM25's free parameters (Robertson and Zaragoza 2009, 3.3). A text is long here because it was picked for many questions,
 * which speaks for it: its length counts little.
 */
const K1 = 1.2;
const B = 0.2;

/** A slip of the thumb: one letter more, less or another, or two that changed places. Only in words that are long enough. */
export const isSlipOf = (typed: string, meant: string): boolean => {
  const [short, long] = typed.length <= meant.length ? [typed, meant] : [meant, typed];
  if (short.length < 4 || long.length - short.length > 1 || short === long) return false;
  let at = 0;
  while (at < short.length && short[at] === long[at]) at += 1;
  const rest = short.slice(at);
  if (long.length > short.length) return rest === long.slice(at + 1);
  if (rest.slice(1) === long.slice(at + 1)) return true;
  const swapped = (long[at + 1] ?? '') + (long[at] ?? '');
  return rest.slice(0, 2) === swapped && rest.slice(2) === long.slice(at + 2);
};

/** Two stems of one word that the rules for endings left apart: "deliv" and "deliveri". */
const areKin = (one: string, other: string): boolean => {
  const [short, long] = one.length <= other.length ? [one, other] : [other, one];
  return short.length >= 4 && long.length - short.length <= 3 && long.startsWith(short);
};

/** How common words are in what people write otherwise: what is everywhere says nothing, though no stored text has it. */
export interface Background {
  textCount: number;
  textsWith(stem: string): number;
}

const noBackground: Background = { textCount: 0, textsWith: () => 0 };

interface Entry {
  id: string;
  length: number;
}

/** The weight of a word that so many of the texts have (Robertson and Zaragoza 2009, 3.1; never below nothing). */
export const idfOf = (textCount: number, textsWith: number): number =>
  Math.log(1 + (textCount - textsWith + 0.5) / (textsWith + 0.5));

/** How much a word counts that stands so often in a text of such a length (Robertson and Zaragoza 2009, 3.3). */
export const saturated = (count: number, length: number, averageLength: number): number =>
  (count * (K1 + 1)) / (count + K1 * (1 - B + (B * length) / averageLength));

/** A word that no text has is a name, or somebody's story: it speaks against a text, and less than one that others have. */
const UNKNOWN = 0.5;

/** How much the share of a question that is answered counts beside how much speaks for the answer. */
const ANSWERED = 0.4;

/** A stem that comes near another one is not quite it. */
const NEAR = 0.6;
const NEAR_MOST = 4;

const createCorpus = (language: string, background: Background) => {
  const entries: Entry[] = [];
  // By their first letter, which nobody gets wrong: who looks for something like a word looks through few.
  const byFirst = new Map<string, string[]>();
  const postings = new Map<string, Map<number, number>>();
  let lengths = 0;

  const idfWith = (textsWith: number, othersWith: number): number =>
    idfOf(entries.length + background.textCount, textsWith + othersWith);

  const learn = (stem: string): Map<number, number> => {
    const counts = new Map<number, number>();
    postings.set(stem, counts);
    const first = stem.charAt(0);
    byFirst.set(first, [...(byFirst.get(first) ?? []), stem]);
    return counts;
  };

  const add = ({ id, fields }: Stored): void => {
    const place = entries.length;
    let length = 0;
    for (const { text, weight } of fields) {
      for (const { stem } of tokensOf(text, language)) {
        const counts = postings.get(stem) ?? learn(stem);
        counts.set(place, (counts.get(place) ?? 0) + weight);
        length += weight;
      }
    }
    entries.push({ id, length });
    lengths += length;
  };

  /** The stems of the texts that a stem of a question stands for, and how surely. */
  const meantBy = (stem: string): [string, number][] => {
    const others = byFirst.get(stem.charAt(0)) ?? [];
    const isKnown = postings.has(stem);
    const isNear = (one: string): boolean =>
      one !== stem && (areKin(stem, one) || (!isKnown && isSlipOf(stem, one)));
    const near = others.filter(isNear).slice(0, NEAR_MOST);
    return [
      ...(isKnown ? [[stem, 1] as [string, number]] : []),
      ...near.map((one): [string, number] => [one, NEAR]),
    ];
  };

  /** What a stem of a question says: how much it weighs, and how often each text has it or what comes near it. */
  const weigh = (stem: string) => {
    const meant = meantBy(stem);
    const counts = new Map<number, number>();
    for (const [one, sureness] of meant) {
      for (const [place, count] of postings.get(one) ?? []) {
        counts.set(place, Math.max(counts.get(place) ?? 0, count * sureness));
      }
    }
    const idf = idfWith(counts.size, background.textsWith(stem));
    return { stems: meant.map(([one]) => one), counts, idf };
  };

  /** From 0 to about 1, as `Match` has it. `ideal`: what a text would score that has all of the question. */
  const fitOf = (score: number, ideal: number): number => {
    const answered = score / (ideal * (K1 + 1));
    const evidence = score / (idfWith(0, 0) * (K1 + 1));
    return answered ** ANSWERED * evidence ** (1 - ANSWERED);
  };

  const best = (question: string, most: number): Match[] => {
    const asked = [...new Set(tokensOf(question, language).map(({ stem }) => stem))].map(weigh);
    const averageLength = lengths / Math.max(1, entries.length) || 1;
    const ideal = asked.reduce(
      (sum, { idf, counts }) => sum + (counts.size > 0 ? idf : idf * UNKNOWN),
      0,
    );
    const found = new Map<number, { score: number; stems: Set<string> }>();
    for (const { stems, counts, idf } of asked) {
      for (const [place, count] of counts) {
        const one = found.get(place) ?? { score: 0, stems: new Set<string>() };
        one.score += idf * saturated(count, entries[place]?.length ?? 0, averageLength);
        for (const stem of stems) one.stems.add(stem);
        found.set(place, one);
      }
    }
    return [...found]
      .sort(([, a], [, b]) => b.score - a.score)
      .slice(0, most)
      .map(([place, { score, stems }]) => ({
        id: entries[place]?.id ?? '',
        fit: fitOf(score, ideal),
        stems,
      }));
  };
  return { add, best };
};

/** Stored texts in which answers to a question are found by BM25, each language for itself. */
export const createMatching = (background: Background = noBackground) => {
  const corpora = new Map<string, ReturnType<typeof createCorpus>>();
  return {
    add: (stored: Stored): void => {
      const corpus = corpora.get(stored.language) ?? createCorpus(stored.language, background);
      corpora.set(stored.language, corpus);
      corpus.add(stored);
    },
    /** The best, in order, whether they fit or not. */
    best: (question: string, most: number): Match[] =>
      [...corpora.values()]
        .flatMap((corpus) => corpus.best(question, most))
        .sort((a, b) => b.fit - a.fit)
        .slice(0, most),
  };
};

export type Matching = ReturnType<typeof createMatching>;
