import { type Cards, cardsIn, FIRST_CARDS_MOST, firstCards } from '../cards';
import { bothColours, type DoorColours } from '../colours';
import { zonesFor } from '../countries';
import {
  directionOf,
  type LanguageCode,
  shippedLanguages,
  type Texts,
  textKeys,
  textsIn,
} from '../door-texts';
import type { LampState } from '../lamp';
import type { Choosing, MannerRule } from '../page-rules';
import { localeOf } from '../when';
import {
  type AnswerManner,
  type ClosedManner,
  type Dress,
  type GuestBookPage,
  type PlaceLink,
  type PlateShape,
  SUBJECT,
} from './dress';
import { panelPixels, stackOf } from './type';

/** Somebody of the team as visitors see them. */
export interface ShownPerson {
  name: string;
  /** Address of their face; null: initials stand for it. */
  face: string | null;
}

/** What of the business is shown at its doors. */
export interface ShownBusiness {
  name: string;
  /** Where people may write by mail instead; empty: nowhere. */
  address: string;
  picture: { url: string; shape: 'round' | 'square' } | null;
  people: ShownPerson[];
  /** What other doors are called by which one may rather write. */
  ways: string[];
  /** Orders can be looked up. */
  hasOrders?: boolean;
  /** ISO 3166, where it is; absent: not known. */
  country?: string;
}

/** An own field in the visitor's language. A choice's value is what the owner wrote; its text may differ. */
export interface ShownField {
  id: string;
  kind: 'name' | 'email' | 'phone' | 'text' | 'choice' | 'tick';
  label: string;
  choices: { value: string; text: string }[];
  isRequired: boolean;
}

export interface ShownGuestBook {
  when: GuestBookPage['when'];
  fields: ShownField[];
}

/** A link to another place in the visitor's language. */
export type ShownLink = Omit<PlaceLink, 'id'>;

/** A question that is offered as a button, and while the light is how. */
export interface ShownCard {
  id: string;
  question: string;
  states: readonly LampState[];
}

/** A dressed door in one language, as the panel draws it. */
export interface DoorView {
  business: ShownBusiness;
  language: LanguageCode;
  /** As which dates and times are written. */
  locale: string;
  direction: 'ltr' | 'rtl';
  texts: Texts;
  colours: { day: DoorColours; night: DoorColours };
  look: Pick<Dress['look'], 'side' | 'sidePx' | 'bottomPx' | 'face' | 'onPhones'> & {
    plate: PlateShape;
    /** 1 is the usual size of text. */
    scale: number;
    /** A `font-family`. */
    font: string;
    /** Width and height of the open panel on a large screen, in CSS pixels. */
    panel: readonly [number, number];
  };
  links: ShownLink[];
  guestBook: { lit: ShownGuestBook; notLit: ShownGuestBook };
  consent: { link: string } | null;
  whenNotLit: ClosedManner;
  callBack: boolean;
  /** Whether orders can be looked up. */
  orders: boolean;
  /** Whether a first message is acknowledged at once; on which days and at which times only the house knows. */
  hello: boolean;
  /** Their answers are with the house. */
  asked: {
    first: ShownCard[];
    /** There are so many cards that they can be looked for. */
    isSearched: boolean;
    /** There are any at all. */
    isAny: boolean;
    /** All of them: where nobody hears what is tapped, in the dressing room. */
    all?: Cards;
  };
}

/** Where and how a door shows itself, in a form that a website's page can check by itself. */
export interface DoorRules {
  pages: Choosing;
  zones: Choosing;
  onSmallScreens: boolean;
  manners: MannerRule[];
  onAnswer: AnswerManner;
}

const scales = { small: 0.9, usual: 1, large: 1.2 } as const;

/** In which languages a dress can speak: those that ship, and those that its owner wrote. */
export const languagesOf = (dress: Dress): LanguageCode[] => [
  ...new Set([...shippedLanguages, ...Object.keys(dress.texts)]),
];

/** All texts of a dress in one language: the owner's where there are any. */
export const textsOf = (dress: Dress, language: LanguageCode): Texts => {
  const own = dress.texts[language] ?? {};
  const defaults = textsIn(language, dress.fallback);
  return Object.fromEntries(
    textKeys.map((key) => [key, own[key]?.trim() || defaults[key]]),
  ) as Texts;
};

const shownField = (
  dress: Dress,
  language: LanguageCode,
  texts: Texts,
  field: string,
): Omit<ShownField, 'isRequired'> => {
  if (field === 'name' || field === 'email' || field === 'phone') {
    return { id: field, kind: field, label: texts[field], choices: [] };
  }
  if (field === SUBJECT) return { id: field, kind: 'text', label: texts.subject, choices: [] };
  const own = dress.guestBook.own.find(({ id }) => id === field);
  const said = dress.texts[language] ?? {};
  return {
    id: field,
    kind: own?.kind ?? 'text',
    label: said[`own.${field}`] || (own?.label ?? ''),
    choices: (own?.choices ?? [])
      .map((value, index) => ({ value, text: said[`own.${field}.${index}`] || value }))
      .filter(({ value }) => value.trim() !== ''),
  };
};

/** What a visitor gets of a dress in a language: every text, every colour, nothing left to decide. */
export const viewOf = (dress: Dress, business: ShownBusiness, language: LanguageCode): DoorView => {
  const texts = textsOf(dress, language);
  const shownPage = ({ when, asks }: GuestBookPage): ShownGuestBook => ({
    when,
    fields: asks.map(({ field, isRequired }) => ({
      ...shownField(dress, language, texts, field),
      isRequired,
    })),
  });
  const { side, sidePx, bottomPx, face, plate, textSize, onPhones, type, panel } = dress.look;
  const said = dress.texts[language] ?? {};
  const cards = cardsIn(dress.asked, language, dress.fallback).length;
  return {
    business: { ...business, people: dress.people === 'team' ? business.people : [] },
    language,
    locale: localeOf(language, business.country ?? ''),
    direction: directionOf(language),
    texts,
    colours: bothColours(dress.look),
    look: {
      side,
      sidePx,
      bottomPx,
      face,
      plate,
      onPhones,
      scale: scales[textSize],
      font: stackOf(type),
      panel: panelPixels[panel],
    },
    links: dress.links.map(({ id, label, glyph, url }) => ({
      glyph,
      url,
      label: said[`link.${id}`]?.trim() || label,
    })),
    guestBook: {
      lit: shownPage(dress.guestBook.lit),
      notLit: shownPage(dress.guestBook.notLit),
    },
    consent: dress.consent.isAsked ? { link: dress.consent.link } : null,
    whenNotLit: dress.whenNotLit,
    callBack: dress.callBack,
    orders: business.hasOrders ?? false,
    hello: dress.hello.isOn,
    asked: {
      first: firstCards(dress.asked, language, dress.fallback).map(({ id, question, states }) => ({
        id,
        question,
        states,
      })),
      isSearched: cards > FIRST_CARDS_MOST,
      isAny: cards > 0,
    },
  };
};

/** The rules of a dress with its countries turned to time zones. */
export const rulesOf = ({ where, onAnswer }: Dress): DoorRules => ({
  pages: where.pages,
  zones: zonesFor(where.countries),
  onSmallScreens: where.onSmallScreens,
  manners: where.manners,
  onAnswer,
});
