import type { LanguageCode } from '../door-texts';
import { toPattern } from '../page-rules';
import { cleanMessage } from '../text';
import type { GreetingRules, SaidGreeting } from './next';

/** What a door says to somebody before they write. */
export interface Greeting extends GreetingRules {
  /** Made where it was added; stays when its words change. */
  id: string;
  isOn: boolean;
  text: string;
  /** Whom it is for: those to whom the door speaks in this language. */
  language: LanguageCode;
  /** In whose name; null: the business's. */
  memberId: string | null;
}

/** By what it is counted how often the first hello was said, and how often whoever read it wrote on. */
export const FIRST_HELLO = 'first-hello';

export const GREETINGS_MOST = 20;
export const GREETING_LONGEST = 200;
export const GREETING_WAIT_MOST_SECONDS = 600;
export const GREETING_PLACES_MOST = 20;
export const GREETING_VISITS_MOST = 1_000;

/** A greeting as one begins to write it: for everybody, on every page, while somebody is in. */
export const newGreeting = (id: string, language: LanguageCode): Greeting => ({
  id,
  isOn: true,
  text: '',
  language,
  memberId: null,
  pages: [],
  afterSeconds: 10,
  visits: { least: 1, most: null },
  cameFrom: [],
  whileNotLit: false,
});

/** Those that are said to whoever is spoken to in a language. `who`: how a member is called there, or the business. */
export const greetingsIn = (
  greetings: readonly Greeting[],
  language: LanguageCode,
  who: (memberId: string | null) => Pick<SaidGreeting, 'name' | 'face'>,
): SaidGreeting[] =>
  greetings
    .filter((one) => one.isOn && one.language === language)
    .map(({ id, text, memberId, pages, afterSeconds, visits, cameFrom, whileNotLit }) => ({
      id,
      text,
      ...who(memberId),
      pages,
      afterSeconds,
      visits,
      cameFrom,
      whileNotLit,
    }));

/** A greeting as it is tried: on its pages and after its seconds, whoever comes, from wherever, and whatever the light shows. */
export const triedGreeting = (greeting: Greeting): Greeting => ({
  ...greeting,
  isOn: true,
  visits: { least: 1, most: null },
  cameFrom: [],
  whileNotLit: true,
});

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

/** Greetings in the form in which they are kept: words, pages and hosts spelled one way. */
export const tidyGreetings = (greetings: readonly Greeting[]): Greeting[] =>
  greetings.map((greeting) => ({
    ...greeting,
    text: cleanMessage(greeting.text),
    pages: greeting.pages.map((page) => toPattern(page) ?? page),
    cameFrom: greeting.cameFrom.map((host) => host.toLowerCase()),
  }));

/** Everything that keeps the greetings of a door from being said; none: they may be. */
export const problemsInGreetings = (greetings: readonly Greeting[]): GreetingProblem[] => [
  ...(greetings.length > GREETINGS_MOST
    ? [{ id: '', part: '' as const, code: 'too-many' as const }]
    : []),
  ...greetings.flatMap(problemsOf),
];
