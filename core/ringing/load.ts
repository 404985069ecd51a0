import type { Call } from '../calling';
import { cleanLine } from '../text';
import type { AlertDeed, Cause, Doorbell, Sound } from './doorbell';

/** As much of a message as a lock screen shows. */
export const ALERT_WORDS_LONGEST = 160;

/** RFC 8030, 7.2 and RFC 8291, 4: what every push service takes, less what encrypting adds. */
export const LOAD_LARGEST_BYTES = 3_993;

/** What a ring says to a device; its words are made there, in its language. */
export interface RingLoad {
  say: 'ring';
  /** Which ring: the same for every device of one person, and for each time it is tried. */
  ring: string;
  cause: Cause;
  /** The conversation; null: nobody has written. */
  talk: string | null;
  /** Who of that conversation the short reply is for; null: nobody has written, or it is not clear. */
  whom: string | null;
  /** Whose device it is meant for. */
  to: string;
  called: Call;
  /** What the door is called; '' where there is only one. */
  door: string;
  /** The first words; '' where they are kept off the lock screen, or there are none. */
  words: string;
  /** How many messages nobody has read. */
  unread: number;
  /** A picture that was sent with it, by its file's id. */
  picture: string | null;
  /** How many wait in all. */
  waiting: number;
  buttons: [AlertDeed, AlertDeed];
  shortReply: string;
  sound: Sound | null;
  vibrates: boolean;
}

/** Somebody has looked: what was shown of a conversation goes. */
export interface HushLoad {
  say: 'hush';
  talk: string;
  waiting: number;
  /** Who looked or answered; '' where nobody of the team did. */
  by: string;
}

/** A ring that somebody asked for, to see whether it comes. */
export interface TrialLoad {
  say: 'trial';
  ring: string;
  sound: Sound | null;
  vibrates: boolean;
}

/** Something rings, and what it is would not fit: the app says it once it is open. */
export interface BareLoad {
  say: 'bare';
  talk: string | null;
}

export type PushLoad = RingLoad | HushLoad | TrialLoad | BareLoad;

/** What is known of what rings, before a person's own wishes are looked at. */
export interface Facts {
  ring: string;
  cause: Cause;
  talk: string | null;
  whom: string | null;
  called: Call;
  door: string;
  text: string;
  unread: number;
  picture: string | null;
  waiting: number;
}

/** A ring as one person wants it. */
export const ringLoadFor = (facts: Facts, to: string, bell: Doorbell): RingLoad => {
  const { text, picture, ...known } = facts;
  const words = cleanLine(text);
  const isLong = words.length > ALERT_WORDS_LONGEST;
  return {
    say: 'ring',
    ...known,
    to,
    words: bell.hidesWords ? '' : isLong ? `${words.slice(0, ALERT_WORDS_LONGEST)}…` : words,
    picture: bell.hidesWords ? null : picture,
    buttons: bell.buttons,
    shortReply: bell.shortReply,
    sound: bell.sound,
    vibrates: bell.vibrates,
  };
};

/** The same, saying as little as can be: for where all of it is too much. */
export const bareOf = (load: PushLoad): BareLoad => ({
  say: 'bare',
  talk: load.say === 'trial' ? null : load.talk,
});
