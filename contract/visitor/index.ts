import type { CardSaid, Entry, ShelfSaid } from '@porch/core/conversation';
import type { DoorRules, DoorView, PlateView } from '@porch/core/dress';
import { DRESS_LIMITS } from '@porch/core/dress/limits';
import type { SaidGreeting } from '@porch/core/greetings';
import { isVisitorToken } from '@porch/core/ids';
import type { Light } from '@porch/core/lamp';
import { z } from 'zod';
import {
  CallBackSchema,
  DetailsSchema,
  FILES_MOST,
  IdSchema,
  LastSchema,
  PageSchema,
  SeqSchema,
  TypedTextSchema,
} from '../entries';
import type { Refusal } from '../errors';
import { LETTER_MOST, SIGNED_LONGEST } from '../limits';

/** What the visitor's panel and the server say to each other over a website door's socket. */
export const VisitorTokenSchema = z.string().refine(isVisitorToken, 'not a visitor token');

export const SOCKET_FRAME_LARGEST_BYTES = 64 * 1024;

export const SaySchema = z.object({
  do: z.literal('say'),
  id: IdSchema,
  text: TypedTextSchema,
  fileIds: z.array(IdSchema).max(FILES_MOST),
  page: PageSchema.nullable(),
  /** The browser's time zone, and the language in which the door speaks to them. */
  zone: z.string().max(64).optional(),
  language: z.string().max(8).optional(),
  /** In which language the visitor agreed to be kept, where the door asks for that. */
  consent: z.string().max(8).nullable().optional(),
  /** By which their browser is known at all doors of the house; made there. */
  device: IdSchema.optional(),
  /** They ask to be called back; what it is about is what they say. */
  callBack: CallBackSchema.optional(),
  /** With what they were greeted before they wrote. */
  greeted: IdSchema.optional(),
  /** Its owner tries a draft: the door speaks as that has it, and what it says is not counted. */
  isTrial: z.boolean().optional(),
});

/** A card of what is asked often was tapped. */
export const TapSchema = SaySchema.pick({
  id: true,
  page: true,
  zone: true,
  language: true,
  consent: true,
  device: true,
  greeted: true,
  isTrial: true,
}).extend({ do: z.literal('tap'), card: IdSchema });

/** Where an order is, for whoever has its number and the mail address or phone number of whoever ordered. */
export const AskOrderSchema = TapSchema.omit({ do: true, card: true }).extend({
  do: z.literal('order'),
  number: z.string().max(200),
  contact: z.string().max(300),
});

const given = {
  id: IdSchema,
  ...DetailsSchema.shape,
  /** Who is signed in on the website, as that has signed it; see docs/website-door.md. */
  signed: z.string().max(SIGNED_LONGEST).optional(),
  signature: z.string().max(200).optional(),
  /** Answers to the door's own questions. */
  own: z
    .array(z.object({ id: IdSchema, value: z.string().max(DRESS_LIMITS.textLongest * 2) }))
    .max(DRESS_LIMITS.ownFieldsMost)
    .optional(),
};

export const GiveDetailsSchema = z.object({ do: z.literal('details'), ...given });
/** Asks whether details could be kept, without keeping them. */
export const CheckDetailsSchema = z.object({ do: z.literal('check'), ...given });

export const HelloSchema = z.object({
  do: z.literal('hello'),
  token: VisitorTokenSchema,
  since: SeqSchema,
  /** Names the entry at `since`. */
  last: LastSchema,
  /** The origin of the page on which the panel stands; empty for the page of our own. */
  site: z.string().max(300),
});

/** Everything that a panel may send. */
export const FromVisitorSchema = z.discriminatedUnion('do', [
  HelloSchema,
  SaySchema,
  GiveDetailsSchema,
  CheckDetailsSchema,
  TapSchema,
  AskOrderSchema,
  /** Which cards answer something: as somebody looks for it, or as they have just left it. */
  z.object({
    do: z.literal('find'),
    id: IdSchema,
    text: TypedTextSchema,
    language: z.string().max(8),
    for: z.enum(['search', 'note']),
  }),
  /** A card has answered what they left. */
  z.object({ do: z.literal('enough'), id: IdSchema }),
  z.object({ do: z.literal('has'), upTo: SeqSchema }),
  z.object({ do: z.literal('read'), upTo: SeqSchema }),
  z.object({ do: z.literal('typing') }),
  z.object({ do: z.literal('page'), id: IdSchema, page: PageSchema }),
  z.object({ do: z.literal('pulse') }),
]);
export type FromVisitor = z.infer<typeof FromVisitorSchema>;

/** What a panel says where no socket can be had; the answer is what it is told, in a letter as well. */
export const VisitorLetterSchema = z.object({
  says: z.array(FromVisitorSchema).min(1).max(LETTER_MOST),
});
export type VisitorLetter = z.infer<typeof VisitorLetterSchema>;

/** What a visitor is told of an entry: nothing about the team's inner doings. */
export type VisitorEntry = Pick<Entry, 'seq' | 'id' | 'at'> &
  Pick<Extract<Entry, { kind: 'visitor-said' }>, 'text' | 'files' | 'callBack'> & {
    by: 'visitor' | 'team' | 'door';
    /** Who of the team said it; empty for the visitor's own, and for what the door says. */
    name: string;
    /** Address of their face; null: initials stand for it. */
    face: string | null;
    /** It is a card that the visitor tapped, or an order that they asked for: nothing that they typed to anybody. */
    isTap?: boolean;
    /** It is the answer of a card; its files are the entry's. */
    card?: Omit<CardSaid, 'files'>;
    /** It is the greeting of that id, with which they were greeted before they wrote. */
    greeting?: string;
    /** It says where an order is that they have asked for. */
    isOrder?: true;
    /** What was put in from the shelf. */
    shelf?: ShelfSaid[];
  };

/** How far the other side has come, for the states of the visitor's own messages. */
export interface Reached {
  /** On a device of the team. */
  hasSeq: number;
  readSeq: number;
}

export interface KnownDetails {
  name: string;
  email: string;
  phone: string;
  /** Answers to the door's own questions, by the question's id. */
  own: Record<string, string>;
}

/** From a moment to another, UTC epoch milliseconds. */
export type Stretch = readonly [from: number, to: number];

/** Everything that a panel may be sent. */
export type ToVisitor =
  | {
      say: 'welcome';
      now: number;
      lamp: Light;
      /** How long an answer usually takes, in minutes; null: it is not told. */
      usual: number | null;
      /** From when to when it is open in the days that come, where the door says no more than that. */
      opens: Stretch[];
      entries: VisitorEntry[];
      /** True when `entries` follow what the panel has; false when they are the newest, to start from. */
      continues: boolean;
      /** True when there are entries before these, to be asked for over HTTP. */
      hasOlder: boolean;
      reached: Reached;
      details: KnownDetails;
      hasConsented: boolean;
      /** An answer reaches whoever left an email after they have gone. */
      mails: boolean;
      /** The newest seq of this conversation that is on disk; ask since it next time. */
      seq: number;
      /** The entry at `seq`; null before there is any. */
      last: string | null;
    }
  | { say: 'entries'; entries: VisitorEntry[]; seq: number; last: string | null }
  | { say: 'taken'; id: string }
  /** What was found for the question of that id, what fits best first. */
  | { say: 'found'; id: string; cards: { id: string; question: string }[] }
  | { say: 'refused'; id: string; refusal: Refusal }
  | { say: 'reached'; reached: Reached }
  | { say: 'typing'; name: string }
  | { say: 'lamp'; lamp: Light; usual: number | null; opens: Stretch[]; now: number }
  | { say: 'pulse' };

export interface LetterToVisitor {
  says: ToVisitor[];
}

/** Visitor's entries over HTTP: older ones, or those since a seq when no socket can be had. */
export interface VisitorPage {
  entries: VisitorEntry[];
  hasOlder: boolean;
  seq: number;
  last: string | null;
}

/** Other doors by which one may rather write. */
export interface OtherWays {
  /** By which the conversation is known there; null: nothing was said yet. */
  code: string | null;
  ways: { name: string; link: string }[];
}

/** What the loader learns before anything is opened; as small as it can be. */
export interface DoorConfiguration extends PlateView {
  door: string;
  /** Where the loader's second part is, which only some doors need. */
  more: string;
  lamp: Light;
  now: number;
  rules: DoorRules;
  /** The door does something by itself, at least on some pages. */
  acts: boolean;
  /** What may be said before anybody writes. */
  greetings: SaidGreeting[];
}

/** What the panel's page is served with. A draft's view comes from the page around it. */
export interface PanelPageData {
  door: string;
  /** In a frame on a website, on a page of our own, as a trial there, or in the dressing room. */
  place: 'frame' | 'page' | 'trial' | 'preview';
  view: DoorView | null;
  isClosed: boolean;
}

/** A draft for the owner's own eyes: what plate and panel are drawn from. */
export interface TrialData {
  configuration: DoorConfiguration;
  view: DoorView;
}
