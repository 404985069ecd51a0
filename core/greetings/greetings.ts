import type { LanguageCode } from '../door-texts';
import { fitsPattern, toPattern } from '../page-rules';

/** What a door says to somebody before they write, where all of it fits. */
export interface Greeting {
  /** Made where it was added; stays when its words change. */
  id: string;
  isOn: boolean;
  text: string;
  /** Whom it is for: those to whom the door speaks in this language. */
  language: LanguageCode;
  /** In whose name; null: the business's. */
  memberId: string | null;
  /** Pages by path, as `fitsPattern` has them; none: every page. */
  pages: string[];
  afterSeconds: number;
  /** From which visit to which, the first being 1; `most` null: no end. */
  visits: { least: number; most: number | null };
  /** Hosts of the pages from which they came ("example.com" is "shop.example.com" too); none: from anywhere. */
  cameFrom: string[];
  /** Also while nobody is in. */
  whileNotLit: boolean;
}

/** Somebody on a page, before they have written anything. */
export interface Passing {
  path: string;
  /** How long they have been on this page, in seconds. */
  seconds: number;
  /** The first is 1. */
  visit: number;
  language: LanguageCode;
  /** The host of the page from which they came to the website; '' where that is not known, or there was none. */
  cameFrom: string;
  isLit: boolean;
  /** They were greeted in this visit. */
  wasGreeted: boolean;
}

export const GREETINGS_MOST = 20;
export const GREETING_LONGEST = 200;
export const GREETING_WAIT_MOST_SECONDS = 600;
export const GREETING_PLACES_MOST = 20;
export const GREETING_VISITS_MOST = 1_000;

const isOfHost = (host: string, cameFrom: string): boolean => {
  const wanted = host.toLowerCase();
  const came = cameFrom.toLowerCase();
  return came === wanted || came.endsWith(`.${wanted}`);
};

/** Whether a greeting is for somebody, but for how long they have been there. */
const isFor = (
  { isOn, language, pages, visits, cameFrom, whileNotLit }: Greeting,
  passing: Passing,
): boolean =>
  isOn &&
  !passing.wasGreeted &&
  (passing.isLit || whileNotLit) &&
  language === passing.language &&
  (pages.length === 0 || pages.some((page) => fitsPattern(page, passing.path))) &&
  passing.visit >= visits.least &&
  (visits.most === null || passing.visit <= visits.most) &&
  (cameFrom.length === 0 || cameFrom.some((host) => isOfHost(host, passing.cameFrom)));

/**
 * The greeting that comes next on this page, and in how many seconds: whichever waits least, of several the first. Null:
 * none does, as things are.
 */
export const nextGreeting = (
  greetings: readonly Greeting[],
  passing: Passing,
): { greeting: Greeting; inSeconds: number } | null => {
  const fitting = greetings.filter((greeting) => isFor(greeting, passing));
  const [first] = fitting.sort((a, b) => a.afterSeconds - b.afterSeconds);
  if (!first) return null;
  return { greeting: first, inSeconds: Math.max(0, first.afterSeconds - passing.seconds) };
};

/** Something in a greeting that is not right: in which part of it, and what. */
export interface GreetingProblem {
  id: string;
  part: 'text' | 'pages' | 'afterSeconds' | 'visits' | 'cameFrom' | '';
  code: 'empty' | 'too-long' | 'not-understood' | 'out-of-range' | 'too-many';
}

const isHost = (typed: string): boolean => /^(?:[\p{L}\d-]+\.)+[\p{L}\d-]{2,}$/u.test(typed);

const isWithin = (value: number, least: number, most: number): boolean =>
  Number.isInteger(value) && value >= least && value <= most;

const problemsOf = (greeting: Greeting): GreetingProblem[] => {
  const { id, text, pages, afterSeconds, visits, cameFrom } = greeting;
  const { least, most } = visits;
  const areVisits =
    isWithin(least, 1, GREETING_VISITS_MOST) &&
    (most === null || isWithin(most, least, GREETING_VISITS_MOST));
  const found: (Omit<GreetingProblem, 'id'> | false)[] = [
    text.trim() === '' && { part: 'text', code: 'empty' },
    text.length > GREETING_LONGEST && { part: 'text', code: 'too-long' },
    pages.length > GREETING_PLACES_MOST && { part: 'pages', code: 'too-many' },
    pages.some((page) => toPattern(page) === null) && { part: 'pages', code: 'not-understood' },
    !isWithin(afterSeconds, 0, GREETING_WAIT_MOST_SECONDS) && {
      part: 'afterSeconds',
      code: 'out-of-range',
    },
    !areVisits && { part: 'visits', code: 'out-of-range' },
    cameFrom.length > GREETING_PLACES_MOST && { part: 'cameFrom', code: 'too-many' },
    cameFrom.some((host) => !isHost(host)) && { part: 'cameFrom', code: 'not-understood' },
  ];
  return found.flatMap((one) => (one ? [{ id, ...one }] : []));
};

/** Everything that keeps the greetings of a door from being said; none: they may be. */
export const problemsInGreetings = (greetings: readonly Greeting[]): GreetingProblem[] => [
  ...(greetings.length > GREETINGS_MOST
    ? [{ id: '', part: '' as const, code: 'too-many' as const }]
    : []),
  ...greetings.flatMap(problemsOf),
];
