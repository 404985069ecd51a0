import type { ShelfKind } from '../shelf/kinds';

/** A file as it is mentioned in a conversation; the bytes are fetched apart. */
export interface FileMention {
  id: string;
  name: string;
  /** What the sniffed bytes are, never what the sender claimed. */
  type: string;
  sizeBytes: number;
  /** Present for pictures only: size in pixels after re-encoding. */
  picture?: { width: number; height: number };
}

export interface Page {
  url: string;
  title: string;
}

/** An answer to one of the owner's own questions, with the question as it was asked. */
export interface OwnAnswer {
  id: string;
  label: string;
  value: string;
}

/** What may be known of a visitor; an empty string takes a detail back. */
export interface Details {
  own?: OwnAnswer[];
  name?: string;
  email?: string;
  phone?: string;
}

/** By which way something goes out to somebody: the screen of the door they write at, or the name of another. */
export type Way = string;

/** Onto the screen that they write from: what every door can do, and all that a website door can. */
export const SCREEN: Way = 'screen';

/** How far something that went out has come, as the network that carries it says. */
export const steps = ['waiting', 'sent', 'arrived', 'read', 'failed'] as const;
export type Step = (typeof steps)[number];

/** Why an answer by mail was not passed on to whoever it was for. */
export const heldBackReasons = [
  'automatic',
  'unknown-sender',
  'stale',
  'too-large',
  'unreadable',
  'empty',
  'door-closed',
  'whom-unclear',
  'other-address',
  'encrypted',
  'forged',
] as const;
export type HeldBack = (typeof heldBackReasons)[number];

/**
 * Why what came in does not stand in the line as what a person said: a program wrote it, a server doubts it, or a card
 * has answered it.
 */
export const setAsideReasons = ['automatic', 'junk', 'forged', 'card'] as const;
export type SetAside = (typeof setAsideReasons)[number];

/** From what an answer can be made: a quick reply, a card of what is asked often, or an answer that was given before. */
export const pickedKinds = ['reply', 'card', 'answer'] as const;
export interface Picked {
  kind: (typeof pickedKinds)[number];
  id: string;
}

/** A card that somebody tapped; `passedTo`: for whom of the team it is. */
export interface Tapped {
  card: string;
  passedTo?: string;
}

export const askedFields = ['name', 'email', 'phone', 'own'] as const;

/** What a card asks for: one of the guest book's own fields, or something in the owner's words. */
export interface Asks {
  field: (typeof askedFields)[number];
  /** The owner's words; empty where the field says it. */
  label: string;
}

/** The greeting of a door that somebody has answered. */
export interface GreetingSaid {
  id: string;
  /** In whose name it was said; null: the business's. */
  memberId: string | null;
}

/** What a card said beside its answer, and what followed from it then. */
export interface CardSaid {
  id: string;
  /** A page to go on with; empty: none. */
  link: string;
  files: FileMention[];
  /** What could be tapped next; of a card that asks for something: once it was given. */
  offers: { id: string; question: string }[];
  asks: Asks | null;
}

/** Something of the shelf, as it was when it was said, in the words of whoever read it. */
export interface ShelfSaid {
  id: string;
  kind: ShelfKind;
  name: string;
  lines: string[];
  /** A page to go on with; empty: none. */
  link: string;
  /** What the link is called; empty: the thing itself is what it leads to. */
  linkWords: string;
  /** Its picture, and a calendar of its times. */
  files: FileMention[];
}

/** Where somebody wants to be called, and when; null: as soon as somebody can. UTC epoch milliseconds. */
export interface CallBack {
  phone: string;
  at: number | null;
}

/** What is owed, by when, and whose it is. Moments are UTC epoch milliseconds. */
export interface Owed {
  /** Empty: an answer. */
  what: string;
  dueAt: number;
  /** When it rings; null: it does not. */
  remindAt: number | null;
  /** Null: whoever comes first. */
  whose: string | null;
}

/** What happened, without when and where: the part that a reducer decides on. */
export type Happening =
  | {
      kind: 'visitor-said';
      text: string;
      files: FileMention[];
      note: boolean;
      page: Page | null;
      /** By which clock their device lives, an IANA time zone; absent where it did not say. */
      zone?: string;
      /** In which language the door spoke to them; absent where it did not say. */
      language?: string;
      /** When it was said, as the network that carried it says; absent: as it came. UTC epoch milliseconds. */
      saidAt?: number;
      /**
       * When it was said by the network's own clock, where that is ahead of ours or within a moment of it: what one person
       * wrote keeps its order by that. `order`: what the network counts by, where it counts.
       */
      networkAt?: number;
      order?: number;
      /** What files are called that were sent and could not be had from the network. */
      missing?: string[];
      /** What files are called that are still fetched from the network, each in its place; see `file-came`. */
      coming?: string[];
      /** It was a call, and for how many seconds something was spoken after the tone; 0: nothing was. */
      call?: { seconds: number };
      /** They ask to be called back there; `at`: when, null: as soon as somebody can. UTC epoch milliseconds. */
      callBack?: CallBack;
      /** It came by mail; and what else stood in that is kept apart. */
      isMail?: boolean;
      hasRest?: boolean;
      /** Who sent the mail in their name, as a website's form does; absent: they sent it themselves. */
      via?: string;
      /** What the mail is about, where that is not what the one before it was about. */
      subject?: string;
      /** So many pictures of it lie elsewhere, and are fetched only when somebody asks for them. */
      pictures?: number;
      /** Nobody has to answer it, and why. */
      setAside?: SetAside;
      /** It is a card that they tapped. */
      tapped?: Tapped;
    }
  /**
   * They changed what they said in the entry `of` (its seq), or took it back; `saidAt`: when, as their network says. The
   * latest by that counts.
   */
  | { kind: 'visitor-changed'; of: number; saidAt: number; text: string }
  | { kind: 'visitor-withdrew'; of: number; saidAt: number }
  /**
   * A file of the entry `of` (its seq) is here, in its place among those that were coming; null: it could not be had.
   * `canRetry`: asking once more may help.
   */
  | { kind: 'file-came'; of: number; place: number; file: FileMention | null; canRetry?: boolean }
  | {
      kind: 'team-said';
      memberId: string;
      text: string;
      files: FileMention[];
      way: Way;
      /** From what it was made, where it was not all typed. */
      picked?: Picked;
      /** What was put in from the shelf. */
      shelf?: ShelfSaid[];
    }
  | ({ kind: 'details' } & Details)
  | { kind: 'waypoint'; page: Page }
  /** The visitor agreed to be kept, in these words. */
  | { kind: 'consented'; text: string; link: string }
  | { kind: 'here' }
  | { kind: 'gone' }
  | { kind: 'visitor-has'; upTo: number }
  | { kind: 'visitor-read'; upTo: number }
  | { kind: 'team-read'; memberId: string; upTo: number }
  /** By nobody of the team: the visitor said that a card answered it. */
  | { kind: 'wrapped-up'; memberId: string | null }
  | { kind: 'put-by'; memberId: string; until: number }
  | { kind: 'taken-back'; memberId: string }
  | { kind: 'returned' }
  /**
   * Threads of the conversation `from` came into this one. By nobody's hand: it was proven, or they said a code that was
   * shown to whoever was here before.
   */
  | { kind: 'joined'; memberId: string | null; threadIds: string[]; from: string; byCode?: true }
  /** Threads went from here to the conversation `other`, or the other way round. */
  | {
      kind: 'parted';
      memberId: string | null;
      threadIds: string[];
      other: string;
      side: 'stays' | 'goes';
    }
  /** What became of the entry `of` (its seq), as its network says. */
  | { kind: 'receipt'; of: number; step: Step; why?: string }
  /** Somebody of the team was rung for it; `failed`: by a code, why it reached none of their devices. */
  | { kind: 'rang'; memberId: string; by: 'push' | 'mail'; failed?: string }
  /**
   * An answer that came by mail and was not passed on, and why; `from`: who sent it, as it says. `says`: what stands
   * in it, where the team is asked whether it is theirs to whom we wrote. `isVisitors`: theirs it is, as far as is known.
   */
  | { kind: 'held-back'; why: HeldBack; from: string; says?: string; isVisitors?: boolean }
  /** Somebody said whether the mail of the entry `of` (its id) is theirs to whom we wrote. */
  | { kind: 'held-decided'; of: string; memberId: string; isTheirs: boolean }
  /** What the door itself said while nobody was in; `until`: when somebody would be back, as far as that was known. */
  /** `isHello`: the first hello, said while somebody is in. */
  /** `card`: the answer of a card that was tapped. */
  /** `greeting`: what they had been greeted with when they wrote. `isTried`: its owner was trying it. */
  | {
      kind: 'door-sign';
      text: string;
      until: number | null;
      isHello?: boolean;
      card?: CardSaid;
      greeting?: GreetingSaid;
      isTried?: boolean;
      /** The number of an order that they have asked for, and where it is. */
      order?: string;
    }
  /** Nobody had looked in time, and the light turned to "back soon" by itself until then. */
  | { kind: 'turned-soon'; until: number }
  /** Somebody came to it who had been rung, or in place of who had. */
  | { kind: 'looked'; memberId: string }
  /** Answers (by their seqs) went to somebody by mail, or did not arrive there; `failed`: by a code, why. */
  | { kind: 'mailed'; of: number[]; to: string; failed?: string }
  /** They want nothing more by this door, or something again, and said so in this word. */
  | { kind: 'stopped'; isStopped: boolean; word: string }
  /** Whoever has this address wants no more mails there. */
  | { kind: 'mail-stopped'; address: string }
  /** Something is owed, from now on; the entry's id is the follow-up's. By nobody's hand: `memberId` null. */
  | ({
      kind: 'owed';
      memberId: string | null;
      why: 'note' | 'left' | 'bounced' | 'asked' | 'held' | 'call-back' | 'hand';
    } & Owed)
  /** What is owed under the id `of` is another, is done, or is not done after all. */
  | ({ kind: 'owed-changed'; of: string; memberId: string | null } & Owed)
  | { kind: 'owed-done'; of: string; memberId: string | null }
  | { kind: 'owed-undone'; of: string; memberId: string }
  /** Something of a kind that this program does not know any more. */
  | { kind: 'bygone'; was: string };

export type HappeningKind = Happening['kind'];

/** One line of a conversation's roll. Append-only; `seq` only grows across the business. */
export type Entry = Happening & {
  seq: number;
  /** Made by whoever wrote it, so that writing it twice is writing it once. */
  id: string;
  /** Where it stands now: joining and parting move it, and change nothing else of it. */
  conversationId: string;
  /** Who wrote it at which door, or to whom it went. Null: it concerns the conversation as a whole. */
  threadId: string | null;
  /** UTC epoch milliseconds, from the server's clock. */
  at: number;
};

const onTheRoll: Record<HappeningKind, boolean> = {
  'visitor-said': true,
  'visitor-changed': true,
  'visitor-withdrew': true,
  'file-came': true,
  stopped: true,
  'team-said': true,
  details: true,
  waypoint: true,
  consented: true,
  'wrapped-up': true,
  'put-by': true,
  'taken-back': true,
  returned: true,
  here: false,
  gone: false,
  'visitor-has': false,
  'visitor-read': false,
  'team-read': false,
  joined: true,
  parted: true,
  receipt: false,
  rang: true,
  looked: true,
  'held-back': true,
  'held-decided': true,
  'turned-soon': true,
  'door-sign': true,
  mailed: true,
  'mail-stopped': true,
  owed: true,
  'owed-changed': true,
  'owed-done': true,
  'owed-undone': true,
  bygone: true,
};

/** Kinds that concern a conversation as a whole, and so every thread that stands in it at the time. */
const ofTheWhole: ReadonlySet<HappeningKind> = new Set<HappeningKind>([
  'team-read',
  'wrapped-up',
  'put-by',
  'taken-back',
  'returned',
  'joined',
  'parted',
  'rang',
  'looked',
  'held-back',
  'held-decided',
  'mail-stopped',
  'turned-soon',
  'owed',
  'owed-changed',
  'owed-done',
  'owed-undone',
]);

/** Whether an entry of a kind concerns a conversation as a whole, and not one thread of it. */
export const isOfTheWhole = (kind: HappeningKind): boolean => ofTheWhole.has(kind);

/** Whether an entry is drawn on the team's roll; the others only move the conversation's state. */
export const isOnTheRoll = (kind: HappeningKind): boolean => onTheRoll[kind];

/** Whether a visitor may see this entry: what was said by either side or by the door, and nothing else. */
export const isForVisitor = (kind: HappeningKind): boolean =>
  kind === 'visitor-said' || kind === 'team-said' || kind === 'door-sign';

export const entryKinds = Object.keys(onTheRoll) as HappeningKind[];
