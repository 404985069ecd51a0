import { createMatching, type Stored } from '@porch/core/match';
import { indexReplies } from '@porch/core/replies';
import { messages } from './messages';
import { picked } from './picked';
import { given, stored } from './stored';

/** Words as a business writes them, again and again in another order. */
const words = [...stored, ...given]
  .flatMap(({ title, text }) => `${title} ${text}`.split(/\s+/))
  .concat(Object.values(picked).flatMap((asked) => asked.join(' ').split(/\s+/)));

const WORDS_OF_A_TEXT = 40;

/** Made up of those words by a rule, so that each run has the same. */
const madeUp = (at: number): string =>
  Array.from(
    { length: WORDS_OF_A_TEXT },
    (_none, place) => words[(at * 7_919 + place * 104_729 + at * place) % words.length],
  )
    .join(' ')
    // A business has words that only some of its texts have.
    .concat(` thing${at} matter${at % 700}`);

const msOf = (work: () => void): number => {
  const began = performance.now();
  work();
  return performance.now() - began;
};

/** How long matching takes against so many texts, in milliseconds: each question, and each stretch in which texts are read. */
export const matchingTimes = (textCount: number, atOnce: number) => {
  const texts: Stored[] = Array.from({ length: textCount }, (_none, at) => ({
    id: `text-${at}`,
    language: 'en',
    fields: [{ text: madeUp(at), weight: 1 }],
  }));
  const matching = createMatching({ textCount: 10_000, textsWith: () => 3 });
  const stretches: number[] = [];
  for (let from = 0; from < texts.length; from += atOnce) {
    stretches.push(msOf(() => texts.slice(from, from + atOnce).forEach(matching.add)));
  }
  const questions = messages.map(([message]) => msOf(() => void matching.best(message, 30)));
  return { questions, stretches };
};

/** How long it takes from a code behind two dots to what it finds among so many quick replies, in milliseconds. */
export const dotsTimes = (replyCount: number): number[] => {
  const replies = Array.from({ length: replyCount }, (_none, at) => ({
    id: `reply-${at}`,
    title: madeUp(at).slice(0, 60),
    code: `${words[at % words.length]?.toLowerCase().replace(/[^a-z]/g, '') ?? ''}${at}`,
    text: madeUp(at + 1),
    group: '',
    isOwn: at % 9 === 0,
    usedCount: at % 50,
  }));
  const index = indexReplies(replies);
  const codes = ['', ...'abcdefghijklmnopqrstuvwxyz', 'del', 'wat', 'zzz'];
  return codes.map((code) => msOf(() => void index.behindDots(code, 6)));
};
