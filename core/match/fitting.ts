/** What speaks for a stored text as the answer to a question. */
export interface Evidence {
  /** How much of the question it has, by the weight of its words, 0 to 1. */
  answered: number;
  /** How much speaks for it at all: 1 is one word that no other text has. */
  weight: number;
  /** How much of that its very words say, and not only what they mean, 0 to 1. */
  literal: number;
  /** How much of the question its title has, 0 to 1. */
  title: number;
  /** How like the question is to one that it has answered before, 0 to 1. */
  likeness: number;
}

/** From here on a question is taken for one that was asked before. */
const AS_BEFORE = 0.75;

/**
 * How likely it is that a text answers what was asked, from 0 to 1: a logistic regression over what speaks for it, on what
 * half of the made-up writers in `bench/answers/writers` wrote, by a business that has just begun and by one that has
 * learned. Held against the other writers, who write in other ways. One word of a long story is little, and so is the only
 * word of a short one that is everywhere.
 */
export const fitOf = ({ answered, weight, literal, title, likeness }: Evidence): number => {
  const sum =
    2.83 +
    0.67 * Math.log(Math.max(answered, 0.01)) +
    2.1 * Math.log(Math.min(Math.max(weight, 0.01), 3)) +
    1.28 * Math.sqrt(title) -
    1.52 * literal +
    0.44 * likeness +
    1.61 * likeness ** 2;
  // Asked nearly as before, it is answered as before, whatever the words of the answer are.
  const asBefore = 1 / (1 + Math.exp(-20 * (likeness - AS_BEFORE)));
  return Math.max(1 / (1 + Math.exp(-sum)), asBefore);
};

/**
 * Below this nothing is offered: chosen on the same half so that of messages that nothing answers more than nine of ten are
 * left in peace.
 */
export const FIT_LEAST = 0.54;

/** Those that are offered, at most so many. */
export const fits = <One extends { fit: number }>(matches: readonly One[], most: number): One[] =>
  matches.filter(({ fit }) => fit >= FIT_LEAST).slice(0, most);
