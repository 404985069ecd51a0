import {
  ANSWER_LONGEST,
  ASKED_FOR_LONGEST,
  CARD_PICTURES_MOST,
  CARDS_MOST,
  type CardProblem,
  FIRST_CARDS_MOST,
  FURTHER_MOST,
  problemsIn,
  QUESTION_LONGEST,
} from '../cards';
import { toHex } from '../colours';
import { countries } from '../countries';
import { gapsIn, type TextKey, textKeys, textsIn, toLanguage } from '../door-texts';
import {
  GREETING_LONGEST,
  GREETING_PLACES_MOST,
  GREETING_VISITS_MOST,
  GREETING_WAIT_MOST_SECONDS,
  GREETINGS_MOST,
  type GreetingProblem,
  problemsInGreetings,
  tidyGreetings,
} from '../greetings';
import { PATTERN_LONGEST, toPattern } from '../page-rules';
import { webAddress } from '../website';
import { type Dress, type GuestBookPage, SUBJECT } from './dress';
import { DRESS_LIMITS } from './limits';

/** What can be wrong in a dress. */
export const dressProblems = [
  'text-too-long',
  'text-empty',
  'colour-unknown',
  'gap-unknown',
  'pattern-not-understood',
  'number-out-of-range',
  'link-not-understood',
  'host-not-understood',
  'too-many-of-these',
  'choice-unknown',
  'leads-back',
  'too-deep',
  'leads-nowhere',
] as const;

/** Something in a dress that is not right: where it stands ("texts.de.sign.dark"), and what is wrong. */
export interface DressProblem {
  field: string;
  code: (typeof dressProblems)[number];
  limit?: number;
}

type Found = DressProblem | false;

const isWithin = (value: number, most: number): boolean =>
  Number.isInteger(value) && value >= 0 && value <= most;

/** Gaps that an earlier default had: what an owner wrote then may still have them. They are filled, or left out. */
const formerGaps: Readonly<Record<string, string[]>> = { open: ['business', 'state'] };

/** Which gaps a text may have: those of its default. Own fields have none. */
export const gapsFor = (key: string): string[] =>
  textKeys.includes(key as TextKey) ? gapsIn(textsIn('en')[key as TextKey]) : [];

const lookProblems = ({ look }: Dress): Found[] => [
  toHex(look.ground) === null && { field: 'look.ground', code: 'colour-unknown' },
  toHex(look.accent) === null && { field: 'look.accent', code: 'colour-unknown' },
  ...(['sidePx', 'bottomPx'] as const).map(
    (name): Found =>
      !isWithin(look[name], DRESS_LIMITS.distanceMostPx) && {
        field: `look.${name}`,
        code: 'number-out-of-range',
        limit: DRESS_LIMITS.distanceMostPx,
      },
  ),
];

const textProblem = (field: string, key: string, text: string): Found => {
  const limit = DRESS_LIMITS.textLongest;
  if (text.length > limit) return { field, code: 'text-too-long', limit };
  const known = [...gapsFor(key), ...(formerGaps[key] ?? [])];
  return gapsIn(text).some((gap) => !known.includes(gap)) && { field, code: 'gap-unknown' };
};

const textProblems = ({ texts }: Dress): Found[] => [
  Object.keys(texts).length > DRESS_LIMITS.languagesMost && {
    field: 'texts',
    code: 'too-many-of-these',
    limit: DRESS_LIMITS.languagesMost,
  },
  ...Object.entries(texts).flatMap(([language, own]): Found[] => [
    toLanguage(language) !== language && { field: `texts.${language}`, code: 'choice-unknown' },
    ...Object.entries(own).map(([key, text]) => textProblem(`texts.${language}.${key}`, key, text)),
  ]),
];

const whereProblems = ({ where }: Dress): Found[] => [
  where.pages.these.length > DRESS_LIMITS.patternsMost && {
    field: 'where.pages',
    code: 'too-many-of-these',
    limit: DRESS_LIMITS.patternsMost,
  },
  where.pages.mode !== 'all' &&
    where.pages.these.length === 0 && { field: 'where.pages', code: 'text-empty' },
  ...where.pages.these.map(
    (pattern): Found =>
      toPattern(pattern) === null && {
        field: 'where.pages',
        code: 'pattern-not-understood',
        limit: PATTERN_LONGEST,
      },
  ),
  where.countries.mode !== 'all' &&
    where.countries.these.length === 0 && { field: 'where.countries', code: 'text-empty' },
  where.countries.these.some((country) => !countries.includes(country)) && {
    field: 'where.countries',
    code: 'choice-unknown',
  },
  where.manners.length > DRESS_LIMITS.mannersMost && {
    field: 'where.manners',
    code: 'too-many-of-these',
    limit: DRESS_LIMITS.mannersMost,
  },
  ...where.manners.flatMap(({ pattern, afterSeconds }, index): Found[] => [
    toPattern(pattern) === null && {
      field: `where.manners.${index}.pattern`,
      code: 'pattern-not-understood',
      limit: PATTERN_LONGEST,
    },
    !isWithin(afterSeconds, DRESS_LIMITS.waitMostSeconds) && {
      field: `where.manners.${index}.afterSeconds`,
      code: 'number-out-of-range',
      limit: DRESS_LIMITS.waitMostSeconds,
    },
  ]),
];

const pageProblems = (name: string, { asks, when }: GuestBookPage, known: string[]): Found[] => [
  when !== 'never' && asks.length === 0 && { field: `guestBook.${name}`, code: 'text-empty' },
  (asks.some(({ field }) => !known.includes(field)) ||
    new Set(asks.map(({ field }) => field)).size < asks.length) && {
    field: `guestBook.${name}`,
    code: 'choice-unknown',
  },
];

const isWebLink = (text: string): boolean => /^https?:\/\/[^\s]+\.[^\s]+$/i.test(text);

const linkProblems = ({ links }: Dress): Found[] => [
  links.length > DRESS_LIMITS.linksMost && {
    field: 'links',
    code: 'too-many-of-these',
    limit: DRESS_LIMITS.linksMost,
  },
  ...links.flatMap(({ id, label, url }): Found[] => [
    !label.trim() && { field: `links.${id}`, code: 'text-empty' },
    label.length > DRESS_LIMITS.labelLongest && {
      field: `links.${id}`,
      code: 'text-too-long',
      limit: DRESS_LIMITS.labelLongest,
    },
    (!isWebLink(url) || webAddress(url) === null || url.length > DRESS_LIMITS.linkLongest) && {
      field: `links.${id}.url`,
      code: 'link-not-understood',
    },
  ]),
];

const guestBookProblems = ({ guestBook, consent }: Dress): Found[] => {
  const known = ['name', 'email', 'phone', SUBJECT, ...guestBook.own.map(({ id }) => id)];
  const limit = DRESS_LIMITS.labelLongest;
  return [
    ...pageProblems('lit', guestBook.lit, known),
    ...pageProblems('notLit', guestBook.notLit, known),
    guestBook.own.length > DRESS_LIMITS.ownFieldsMost && {
      field: 'guestBook.own',
      code: 'too-many-of-these',
      limit: DRESS_LIMITS.ownFieldsMost,
    },
    ...guestBook.own.flatMap(({ id, kind, label, choices }): Found[] => {
      const field = `guestBook.own.${id}`;
      const filled = choices.filter((choice) => choice.trim());
      return [
        !label.trim() && { field, code: 'text-empty' },
        [label, ...choices].some((text) => text.length > limit) && {
          field,
          code: 'text-too-long',
          limit,
        },
        kind === 'choice' && filled.length < 2 && { field: `${field}.choices`, code: 'text-empty' },
        choices.length > DRESS_LIMITS.choicesMost && {
          field: `${field}.choices`,
          code: 'too-many-of-these',
          limit: DRESS_LIMITS.choicesMost,
        },
      ];
    }),
    consent.link !== '' &&
      !isWebLink(consent.link) && {
        field: 'consent.link',
        code: 'link-not-understood',
      },
    consent.link.length > DRESS_LIMITS.linkLongest && {
      field: 'consent.link',
      code: 'text-too-long',
      limit: DRESS_LIMITS.linkLongest,
    },
  ];
};

const asDressProblem: Record<
  CardProblem['code'],
  readonly [part: string, code: DressProblem['code'], limit?: number]
> = {
  'question-empty': ['question', 'text-empty'],
  'question-too-long': ['question', 'text-too-long', QUESTION_LONGEST],
  'answer-empty': ['answer', 'text-empty'],
  'answer-too-long': ['answer', 'text-too-long', ANSWER_LONGEST],
  'label-empty': ['label', 'text-empty'],
  'label-too-long': ['label', 'text-too-long', ASKED_FOR_LONGEST],
  'link-unknown': ['link', 'link-not-understood'],
  'card-unknown': ['leads', 'leads-nowhere'],
  nowhere: ['leads', 'leads-nowhere'],
  'leads-back': ['leads', 'leads-back'],
  'too-deep': ['leads', 'too-deep'],
  'too-many': ['', 'too-many-of-these', CARDS_MOST],
  'too-many-first': ['first', 'too-many-of-these', FIRST_CARDS_MOST],
  'too-many-further': ['leads', 'too-many-of-these', FURTHER_MOST],
  'too-many-pictures': ['pictures', 'too-many-of-these', CARD_PICTURES_MOST],
};

const askedProblems = ({ asked }: Dress): Found[] =>
  problemsIn(asked).map(({ id, code }) => {
    const [part, as, limit] = asDressProblem[code];
    return { field: ['asked', id, part].filter(Boolean).join('.'), code: as, limit };
  });

/** What is wrong with each part of a greeting, as a dress says it, and by which bound. */
const partLimits: Record<GreetingProblem['part'], number> = {
  '': GREETINGS_MOST,
  text: GREETING_LONGEST,
  pages: GREETING_PLACES_MOST,
  afterSeconds: GREETING_WAIT_MOST_SECONDS,
  visits: GREETING_VISITS_MOST,
  cameFrom: GREETING_PLACES_MOST,
};

const greetingProblems = ({ greetings }: Dress): Found[] =>
  problemsInGreetings(greetings).map(({ id, part, code }) => {
    const codes: Record<GreetingProblem['code'], DressProblem['code']> = {
      empty: 'text-empty',
      'too-long': 'text-too-long',
      'not-understood': part === 'pages' ? 'pattern-not-understood' : 'host-not-understood',
      'out-of-range': 'number-out-of-range',
      'too-many': 'too-many-of-these',
    };
    const field = ['greetings', id, part].filter(Boolean).join('.');
    return { field, code: codes[code], limit: partLimits[part] };
  });

/** Everything in a dress that is not right, first things first; an empty list when all is. */
export const problemsOf = (dress: Dress): DressProblem[] =>
  [
    ...lookProblems(dress),
    ...textProblems(dress),
    ...whereProblems(dress),
    ...guestBookProblems(dress),
    ...linkProblems(dress),
    ...askedProblems(dress),
    ...greetingProblems(dress),
  ].filter((found) => found !== false);

const tidyTexts = (texts: Dress['texts'], own: readonly string[]): Dress['texts'] =>
  Object.fromEntries(
    Object.entries(texts).map(([language, table]) => [
      language,
      Object.fromEntries(
        Object.entries(table).filter(
          ([key, text]) =>
            text.trim() !== '' &&
            (textKeys.includes(key as TextKey) || own.includes(key.split('.')[1] ?? '')),
        ),
      ),
    ]),
  );

/** A dress in the form in which it is kept: colours and patterns spelled one way, empty texts left out. */
export const tidyDress = (dress: Dress): Dress => ({
  ...dress,
  greetings: tidyGreetings(dress.greetings),
  look: {
    ...dress.look,
    ground: toHex(dress.look.ground) ?? dress.look.ground,
    accent: toHex(dress.look.accent) ?? dress.look.accent,
  },
  texts: tidyTexts(
    dress.texts,
    [...dress.guestBook.own, ...dress.links].map(({ id }) => id),
  ),
  where: {
    ...dress.where,
    pages: {
      ...dress.where.pages,
      these: dress.where.pages.these.map((pattern) => toPattern(pattern) ?? pattern),
    },
    manners: dress.where.manners.map((rule) => ({
      ...rule,
      pattern: toPattern(rule.pattern) ?? rule.pattern,
    })),
  },
});
