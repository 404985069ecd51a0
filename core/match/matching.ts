import { partsOf } from './compounds';
import { conceptsIn, conceptsOf, isConceptStem, stemsOfConcept } from './concepts';
import { fitOf } from './fitting';
import { languageCalled } from './stems';
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
  /** Questions that it was the answer to before. */
  asked?: readonly string[];
}

export interface Match {
  id: string;
  /** How likely it is that this answers what was asked, from 0 to 1: see `fitOf`. */
  fit: number;
  /** Stems of what was asked that it has. */
  stems: ReadonlySet<string>;
}

/** BM25's free parameters (Robertson and Zaragoza 2009, 3.3). A long text here says more things, and none of them less. */
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

/** The weight of a word that so many of the texts have (Robertson and Zaragoza 2009, 3.1; never below nothing). */
export const idfOf = (textCount: number, textsWith: number): number =>
  Math.log(1 + (textCount - textsWith + 0.5) / (textsWith + 0.5));

/** How much a word counts that stands so often in a text of such a length (Robertson and Zaragoza 2009, 3.3). */
export const saturated = (count: number, length: number, averageLength: number): number =>
  (count * (K1 + 1)) / (count + K1 * (1 - B + (B * length) / averageLength));

/** How surely something stands for a word of a question: another form or a slip of it, a part of it, what it means. */
const NEAR = 0.7;
const PART = 0.7;
const MEANT = 0.5;
const NEAR_MOST = 4;

/** A word that no text has is a name, or somebody's story: it speaks against a text, and less than one that others have. */
const UNKNOWN = 0.5;

interface Entry {
  id: string;
  length: number;
  title: ReadonlySet<string>;
}

/** A question that was answered before: what it was about, and by which text. */
interface Before {
  place: number;
  stems: readonly string[];
}

type Alternative = readonly [stem: string, sureness: number];

interface Term {
  /** What the text has that stands for it: stems, and concepts. */
  alternatives: readonly Alternative[];
  /** What a text would score by it that has it once for sure. */
  idf: number;
}

const createCorpus = (language: string, background: Background) => {
  const { stem: stemOf } = languageCalled(language);
  const entries: Entry[] = [];
  const befores: Before[] = [];
  // By their first letter, which nobody gets wrong: who looks for something like a word looks through few.
  const byFirst = new Map<string, string[]>();
  const postings = new Map<string, Map<number, number>>();
  const askedBefore = new Map<string, number[]>();
  let lengths = 0;

  const backgroundWith = (stem: string): number =>
    stem.startsWith('§')
      ? Math.max(0, ...stemsOfConcept(stem, language).map((one) => background.textsWith(one)))
      : background.textsWith(stem);

  const idfOfStem = (stem: string): number =>
    idfOf(
      entries.length + background.textCount,
      (postings.get(stem)?.size ?? 0) + backgroundWith(stem),
    );

  const learn = (stem: string): Map<number, number> => {
    const counts = new Map<number, number>();
    postings.set(stem, counts);
    const first = stem.charAt(0);
    byFirst.set(first, [...(byFirst.get(first) ?? []), stem]);
    return counts;
  };

  const says = (stem: string): boolean => postings.has(stem) || isConceptStem(stem, language);

  /** Everything that a text says: its stems, the parts of what is put together, and what all of them mean. */
  const saidIn = (text: string): Map<string, number> => {
    const said = new Map<string, number>();
    const note = (stem: string, count: number): void => {
      said.set(stem, (said.get(stem) ?? 0) + count);
    };
    for (const { stem } of tokensOf(text, language)) {
      note(stem, 1);
      const parts = partsOf(stem, language, says, stemOf);
      for (const part of parts) if (part !== stem) note(part, PART);
      const meant = new Set([stem, ...parts].flatMap((one) => conceptsOf(one, language)));
      for (const concept of meant) note(concept, 1);
    }
    for (const concept of conceptsIn(text, language)) note(concept, 1);
    return said;
  };

  const add = ({ id, fields, asked = [] }: Stored): void => {
    const place = entries.length;
    let length = 0;
    const heaviest = Math.max(...fields.map(({ weight }) => weight));
    const title = new Set<string>();
    for (const { text, weight } of fields) {
      for (const [stem, count] of saidIn(text)) {
        const counts = postings.get(stem) ?? learn(stem);
        counts.set(place, (counts.get(place) ?? 0) + count * weight);
        if (!stem.startsWith('§')) length += count * weight;
        if (weight === heaviest) title.add(stem);
      }
    }
    entries.push({ id, length, title });
    lengths += length;
    for (const question of asked) {
      const stems = [...saidIn(question).keys()];
      for (const stem of stems) {
        const list = askedBefore.get(stem) ?? [];
        list.push(befores.length);
        askedBefore.set(stem, list);
      }
      befores.push({ place, stems });
    }
  };

  /** What stands in the texts for a stem of a question, and how surely. */
  const alternativesOf = (stem: string): Alternative[] => {
    const isHere = postings.has(stem);
    const isNear = (one: string): boolean =>
      one !== stem && (areKin(stem, one) || (!isHere && isSlipOf(stem, one)));
    const near = (byFirst.get(stem.charAt(0)) ?? []).filter(isNear).slice(0, NEAR_MOST);
    const parts = partsOf(stem, language, says, stemOf);
    const meant = new Set([stem, ...near, ...parts].flatMap((one) => conceptsOf(one, language)));
    return [
      [stem, 1] as const,
      ...near.map((one) => [one, NEAR] as const),
      ...parts.map((one) => [one, PART] as const),
      ...[...meant].map((one) => [one, MEANT] as const),
    ];
  };

  const termOf = (alternatives: readonly Alternative[]): Term => {
    const here = alternatives.filter(([stem]) => postings.has(stem));
    const [first] = alternatives;
    const idf = here.length
      ? Math.max(...here.map(([stem, sureness]) => idfOfStem(stem) * sureness))
      : idfOfStem(first?.[0] ?? '') * UNKNOWN;
    return { alternatives, idf };
  };

  const termsOf = (question: string): Term[] => {
    const stems = new Set(tokensOf(question, language).map(({ stem }) => stem));
    const terms = [...stems].map((stem) => termOf(alternativesOf(stem)));
    const said = new Set(terms.flatMap(({ alternatives }) => alternatives.map(([one]) => one)));
    const turns = [...new Set(conceptsIn(question, language))].filter((one) => !said.has(one));
    return [...terms, ...turns.map((concept) => termOf([[concept, 1]]))];
  };

  /**
   * Notes what a term says for each text, by the best of what stands for it there: the texts are looked at by their
   * places, as there are thousands of them at each word that somebody types.
   */
  const noteScores = (
    { alternatives, idf: ownIdf }: Term,
    averageLength: number,
    found: ReturnType<typeof emptyFound>,
  ): void => {
    const { score, words, title, best, bestStem } = found;
    const touched: number[] = [];
    for (const [stem, sureness] of alternatives) {
      const counts = postings.get(stem);
      if (!counts) continue;
      const idf = idfOfStem(stem) * sureness;
      for (const [place, count] of counts) {
        const said = idf * saturated(count, entries[place]?.length ?? 0, averageLength);
        if (said <= (best[place] ?? 0)) continue;
        if (best[place] === 0) touched.push(place);
        best[place] = said;
        bestStem[place] = stem;
      }
    }
    for (const place of touched) {
      const said = best[place] ?? 0;
      const stem = bestStem[place] ?? '';
      if (score[place] === 0) found.places.push(place);
      score[place] = (score[place] ?? 0) + said;
      if (!stem.startsWith('§')) words[place] = (words[place] ?? 0) + said;
      if (entries[place]?.title.has(stem)) title[place] = (title[place] ?? 0) + ownIdf;
      best[place] = 0;
    }
  };

  const emptyFound = () => ({
    places: [] as number[],
    score: new Float64Array(entries.length),
    words: new Float64Array(entries.length),
    title: new Float64Array(entries.length),
    best: new Float64Array(entries.length),
    bestStem: new Array<string>(entries.length),
  });

  const wordsFor = (stem: string): readonly string[] =>
    stem.startsWith('§') ? stemsOfConcept(stem, language) : [stem];

  /** How like the question is to the likest that each text has answered before: 1 is the same (Dice, by weight). */
  const likenesses = (terms: readonly Term[]): Map<number, number> => {
    const shared = new Map<number, number>();
    for (const { alternatives } of terms) {
      const here = new Map<number, number>();
      for (const [stem, sureness] of alternatives) {
        for (const at of askedBefore.get(stem) ?? []) {
          const weight = idfOfStem(stem) * sureness;
          if (weight > (here.get(at) ?? 0)) here.set(at, weight);
        }
      }
      for (const [at, weight] of here) shared.set(at, (shared.get(at) ?? 0) + weight);
    }
    const asked = terms.reduce((sum, { idf }) => sum + idf, 0);
    const best = new Map<number, number>();
    for (const [at, weight] of shared) {
      const before = befores[at];
      if (!before) continue;
      const own = before.stems
        .filter((stem) => !stem.startsWith('§'))
        .reduce((sum, stem) => sum + idfOfStem(stem), 0);
      const likeness = Math.min(1, (2 * weight) / (asked + own || 1));
      if (likeness > (best.get(before.place) ?? 0)) best.set(before.place, likeness);
    }
    return best;
  };

  /** The stems by which a text has what a question is about. */
  const stemsIn = (place: number, terms: readonly Term[]): Set<string> => {
    const here = terms.flatMap(({ alternatives }) =>
      alternatives.filter(([stem]) => postings.get(stem)?.has(place)).map(([stem]) => stem),
    );
    return new Set(here.flatMap(wordsFor).filter((stem) => postings.get(stem)?.has(place)));
  };

  const best = (question: string, most: number): Match[] => {
    const terms = termsOf(question);
    const averageLength = lengths / Math.max(1, entries.length) || 1;
    const ideal = terms.reduce((sum, { idf }) => sum + idf, 0) || 1;
    const found = emptyFound();
    for (const term of terms) noteScores(term, averageLength, found);
    const like = likenesses(terms);
    for (const place of like.keys()) if (found.score[place] === 0) found.places.push(place);
    const highest = idfOf(entries.length + background.textCount, 0) * (K1 + 1);
    const fitAt = (place: number): number => {
      const score = found.score[place] ?? 0;
      return fitOf({
        answered: Math.min(1, score / (ideal * (K1 + 1))),
        weight: score / highest,
        literal: score > 0 ? (found.words[place] ?? 0) / score : 0,
        title: Math.min(1, (found.title[place] ?? 0) / ideal),
        likeness: like.get(place) ?? 0,
      });
    };
    return found.places
      .map((place) => ({ place, fit: fitAt(place) }))
      .sort((a, b) => b.fit - a.fit)
      .slice(0, most)
      .map(({ place, fit }) => ({
        id: entries[place]?.id ?? '',
        fit,
        stems: stemsIn(place, terms),
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
