import { gapNames } from '../gaps';
import { cleanCode } from './codes';
import type { GapFacts } from './fill';
import { firstNameOf } from './first-name';

const TITLE_LONGEST = 60;

const escaped = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&');

const asWord = (value: string): RegExp =>
  new RegExp(`(?<![\\p{L}\\p{N}])${escaped(value)}(?![\\p{L}\\p{N}])`, 'gu');

/** Order numbers and the like: letters and digits together, or a sign before digits. */
const reference = /(?<![\p{L}\p{N}])(?:[A-Z]{1,4}-?\d{3,}|#\d{2,}|\d{5,})(?![\p{L}\p{N}])/gu;

/** What is filled into gaps longest first: a name may be part of another. */
const valuesOf = (facts: GapFacts): [string, string][] =>
  gapNames
    .map((name): [string, string] => [name, facts[name] ?? ''])
    .filter(([, value]) => value.length > 1)
    .sort(([, a], [, b]) => b.length - a.length);

/**
 * An answer as a stored one: what concerned only whoever got it is a gap. "Hi Ada, QF-1101 is on its way" to Ada →
 * "Hi {first name|there}, {order number?} is on its way". Braces that it had go.
 */
export const toStored = (text: string, facts: GapFacts & { name?: string | null }): string => {
  const plain = text.replace(/[{}]/g, '');
  const whole = facts.name && firstNameOf(facts.name) ? facts.name : '';
  const named = [...(whole ? [['first name', whole] as [string, string]] : []), ...valuesOf(facts)];
  // Marks of a private area stand for gaps until all is done, so that no gap is found inside another.
  const marks: string[] = [];
  const mark = (gap: string): string => {
    marks.push(gap);
    return String.fromCodePoint(0xf0000 + marks.length - 1);
  };
  const withGaps = named.reduce((now, [name, value]) => {
    const gap = name === 'first name' ? '{first name|there}' : `{${name}}`;
    return now.replace(asWord(value), () => mark(gap));
  }, plain);
  return withGaps
    .replace(reference, () => mark('{order number?}'))
    .replace(/[\u{F0000}-\u{FFFFD}]/gu, (one) => marks[(one.codePointAt(0) ?? 0) - 0xf0000] ?? '');
};

/** What a stored answer may be called: the first words of it. "Yes, we do. It is …" → "Yes, we do". */
export const titleFor = (text: string): string => {
  const line = text
    .replace(/\{[^}]*\}/g, '…')
    .replace(/\s+/g, ' ')
    .trim();
  const sentence = /^.{8,60}?(?=[.!?](\s|$))/u.exec(line)?.[0] ?? line;
  if (sentence.length <= TITLE_LONGEST) return sentence;
  const cut = sentence.slice(0, TITLE_LONGEST);
  return cut.slice(0, cut.lastIndexOf(' ') > 20 ? cut.lastIndexOf(' ') : TITLE_LONGEST);
};

/** A code for a title: its longest word, or what is free after it. ("Opening hours", taken: "opening") → "opening-2". */
export const codeFor = (title: string, isTaken: (code: string) => boolean): string => {
  const words = title.split(/[^\p{L}\p{M}\p{N}]+/u).filter(Boolean);
  const longest = words.reduce((best, one) => (one.length > best.length ? one : best), '');
  const code = cleanCode(longest);
  if (!code || !isTaken(code)) return code;
  for (let count = 2; count < 100; count += 1) {
    const next = `${code.slice(0, 16)}-${count}`;
    if (!isTaken(next)) return next;
  }
  return '';
};
