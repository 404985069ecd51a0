import type { Cards } from '../cards';
import type { ChosenColours } from '../colours';
import { readyColours } from '../colours';
import type { LanguageCode } from '../door-texts';
import type { Greeting } from '../greetings';
import type { Choosing, MannerRule } from '../page-rules';
import type { PanelSize, Typeface } from './type';

export const plateShapes = ['upright', 'lintel', 'latch'] as const;
/** The closed door's shape: a plate that stands, a beam that lies, or a latch at the page's edge. */
export type PlateShape = (typeof plateShapes)[number];

export const textSizes = ['small', 'usual', 'large'] as const;
export type TextSize = (typeof textSizes)[number];

export const phonePlates = ['small', 'usual'] as const;
/** On a small screen: a small form of the plate, or the same as on a large one. */
export type PhonePlate = (typeof phonePlates)[number];

export const linkGlyphs = ['page', 'map', 'shop'] as const;
export type LinkGlyph = (typeof linkGlyphs)[number];

/** A plain link to another place, shown in the panel. */
export interface PlaceLink {
  /** Made where it was added; stays when the label changes. */
  id: string;
  glyph: LinkGlyph;
  label: string;
  url: string;
}

export const answerManners = ['count', 'show', 'open'] as const;
/** What a closed panel does when an answer comes: counts it, shows its first words beside the plate, or opens. */
export type AnswerManner = (typeof answerManners)[number];

export const closedManners = ['note', 'hours', 'no-plate'] as const;
/** While the light is not lit: take a note, show only when and where else to reach the business, or show no plate. */
export type ClosedManner = (typeof closedManners)[number];

/** The guest book's field for what a note is about; kept as an answer under this id. */
export const SUBJECT = 'note-subject';

/** What a person is asked for: three that everybody knows, and the owner's own. */
export interface OwnField {
  /** Made where it was added; stays when the label changes. */
  id: string;
  kind: 'text' | 'choice' | 'tick';
  label: string;
  /** For a choice: what can be chosen. */
  choices: string[];
}

/** "name", "email", "phone", `SUBJECT` or the id of an own field. */
export interface AskedField {
  field: string;
  isRequired: boolean;
}

export interface GuestBookPage {
  when: 'before' | 'after' | 'never';
  asks: AskedField[];
}

/** Texts that the owner wrote: by language, then by the text's key. An own field's are "own.ID" and "own.ID.0", a link's is "link.ID". */
export type OwnTexts = Record<LanguageCode, Record<string, string>>;

/** When a door acknowledges somebody's first message while the light is lit, by the business's clock. */
export interface Hello {
  isOn: boolean;
  /** Days of the week, 0 is Monday; none: each. */
  days: number[];
  /** Minutes of the day, also past midnight ("22:00" to "02:00"); the same: all day. */
  from: number;
  to: number;
}

/** Everything that can be set about how a website door looks and behaves. */
export interface Dress {
  look: ChosenColours & {
    side: 'left' | 'right';
    sidePx: number;
    bottomPx: number;
    plate: PlateShape;
    face: 'picture' | 'initials' | 'none';
    textSize: TextSize;
    type: Typeface;
    panel: PanelSize;
    onPhones: PhonePlate;
  };
  people: 'team' | 'business';
  /** In which language to speak when the page's own is not among those that there are. */
  fallback: LanguageCode;
  texts: OwnTexts;
  where: {
    pages: Choosing;
    countries: Choosing;
    onSmallScreens: boolean;
    manners: MannerRule[];
  };
  guestBook: {
    lit: GuestBookPage;
    notLit: GuestBookPage;
    own: OwnField[];
  };
  consent: { isAsked: boolean; link: string };
  links: PlaceLink[];
  onAnswer: AnswerManner;
  whenNotLit: ClosedManner;
  /** Whether visitors may ask to be called back. */
  callBack: boolean;
  hello: Hello;
  /** Questions that are asked often. */
  asked: Cards;
  /** What is said before anybody writes. */
  greetings: Greeting[];
}

const everywhere = (): Choosing => ({ mode: 'all', these: [] });

/** A door as it is before anybody dresses it. */
export const plainDress = (fallback: LanguageCode = 'en'): Dress => ({
  look: {
    ...readyColours.dusk,
    side: 'right',
    sidePx: 20,
    bottomPx: 20,
    plate: 'upright',
    face: 'none',
    textSize: 'usual',
    type: 'plain',
    panel: 'usual',
    onPhones: 'small',
  },
  people: 'team',
  fallback,
  texts: {},
  where: { pages: everywhere(), countries: everywhere(), onSmallScreens: true, manners: [] },
  guestBook: {
    lit: {
      when: 'after',
      asks: [
        { field: 'name', isRequired: false },
        { field: 'email', isRequired: false },
      ],
    },
    notLit: {
      when: 'after',
      asks: [
        { field: 'name', isRequired: false },
        { field: 'email', isRequired: false },
        { field: 'phone', isRequired: false },
      ],
    },
    own: [],
  },
  consent: { isAsked: false, link: '' },
  links: [],
  onAnswer: 'count',
  whenNotLit: 'note',
  callBack: false,
  hello: { isOn: false, days: [], from: 0, to: 0 },
  asked: { cards: [], first: [] },
  greetings: [],
});

/** A dress as it was kept by an earlier program, with what has been learned to be set since. */
export const wholeDress = (kept: Dress): Dress => {
  const plain = plainDress(kept.fallback);
  return { ...plain, ...kept, look: { ...plain.look, ...kept.look } };
};
