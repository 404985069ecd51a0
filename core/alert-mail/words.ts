import type { CallWords } from '../calling';
import type { HeldBack } from '../conversation';

/** The wording of the mail that says that somebody waits; one table a language. */
export interface AlertMailWords {
  called: CallWords;
  /** A moment by the clock of a time zone; `at` in milliseconds since 1970. */
  moment: (at: number, zone: string) => string;
  subject: (who: string, first: string) => string;
  above: string;
  lead: (who: string, since: string) => string;
  left: (who: string, since: string) => string;
  file: (name: string) => string;
  earlier: string;
  answer: (as: string) => string;
  onlyOpen: string;
  open: string;
  until: (at: number, zone: string) => string;
  /** The mail by which an owner sees that mail goes out. */
  trial: { subject: (business: string) => string; text: string };
  /** What whoever answered is told where nothing was passed on; an automatic mail is told nothing. */
  refused: Record<
    Exclude<HeldBack, 'automatic' | 'other-address' | 'forged'>,
    { subject: string; text: string }
  >;
}

const locale = 'en-GB';

const inZone = (at: number, zone: string, how: Intl.DateTimeFormatOptions): string =>
  new Intl.DateTimeFormat(locale, { timeZone: zone, ...how }).format(at);

export const en: AlertMailWords = {
  called: {
    page: (page) => `Visitor on ${page}`,
    city: (city) => `Visitor, ${city} time`,
    nothing: 'Visitor',
  },
  moment: (at, zone) =>
    inZone(at, zone, {
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    }),
  subject: (who, first) => (first ? `${who} waits: ${first}` : `${who} waits for an answer`),
  above: '— Write your answer above this line —',
  lead: (who, since) => `${who} has been waiting for an answer since ${since}.`,
  left: (who, since) => `${who} left this on ${since}.`,
  file: (name) => `[${name}]`,
  earlier: 'What was said before is not shown here.',
  answer: (as) =>
    `Answer this email to answer them: what you write goes out as ${as}, without what is below.`,
  onlyOpen: 'Answers to this email go nowhere. Open the conversation to answer.',
  open: 'Open the conversation',
  until: (at, zone) =>
    `It can be answered by email until ${inZone(at, zone, { day: 'numeric', month: 'long' })}.`,
  trial: {
    subject: (business) => `${business}: mail goes out`,
    text: 'This is how an alert reaches you by email. Nothing has to be done.',
  },
  refused: {
    'unknown-sender': {
      subject: 'Your answer was not sent',
      text: 'It came from another email address than the one that the alert was sent to, so nothing was passed on. Send it from that address, or open the conversation and answer there.',
    },
    stale: {
      subject: 'Your answer was not sent',
      text: 'The alert that you answered is too old, so nothing was passed on. Open the conversation and answer there.',
    },
    'too-large': {
      subject: 'Your answer was not sent',
      text: 'Its text, or what was attached, is larger than a message may be, so nothing was passed on. Make it smaller, or open the conversation and answer there.',
    },
    unreadable: {
      subject: 'Your answer was not sent',
      text: 'Something that was attached cannot be read as what it is called, so nothing was passed on. Attach it anew, or open the conversation and answer there.',
    },
    empty: {
      subject: 'Your answer was not sent',
      text: 'No text of your own was found in it, so nothing was passed on. Write above the quoted part, or open the conversation and answer there.',
    },
    encrypted: {
      subject: 'Your answer was not sent',
      text: 'It is encrypted, and nobody here can open it, so nothing was passed on. Send it without, or open the conversation and answer there.',
    },
    'whom-unclear': {
      subject: 'Your answer was not sent',
      text: 'Someone joined this conversation with its code. It may be someone else, so we sent nothing on. Open the conversation and choose who your answer is for.',
    },
    'door-closed': {
      subject: 'Your answer was not sent',
      text: 'The door by which this person wrote is closed, so nothing could be passed on. Open the conversation to see how they can be reached.',
    },
  },
};
