import type { Refusal } from '@porch/contract/errors';
import type {
  KnownDetails,
  Reached,
  Stretch,
  ToVisitor,
  VisitorEntry,
  VisitorPage,
} from '@porch/contract/visitor';
import { type Light, lit } from '@porch/core/lamp';
import { type Queue, type QueueAction, step } from '@porch/core/send-queue';
import type { Greeted } from '../bridge';
import type { Given, Load } from './parcels';

/** Everything that the panel shows; changed only by `next`. */
export interface Model {
  entries: VisitorEntry[];
  hasOlder: boolean;
  seq: number;
  /** The entry at `seq`, by which the server knows that it stands where we have it. */
  last: string | null;
  reached: Reached;
  details: KnownDetails;
  /** What was said of themselves before there was anything to say it in. */
  held: Given | null;
  /** The visitor agreed to be kept, here or before. */
  hasAgreed: boolean;
  /** An answer reaches whoever left an email after they have gone: nothing is promised before that is known. */
  mails: boolean;
  lamp: Light;
  /** How long an answer usually takes, in minutes; null: it is not told. */
  usual: number | null;
  /** From when to when it is open in the days that come, where the door says no more than that. */
  opens: Stretch[];
  /** The server's clock less this device's, in milliseconds: a phone's clock may be an hour off. */
  offsetMs: number;
  isConnected: boolean;
  isWelcome: boolean;
  /** The server can be reached and cannot write: what waits goes out once it can. */
  isHeldUp: boolean;
  queue: Queue<Load>;
  refusals: Record<string, Refusal>;
  typing: { name: string; at: number } | null;
  /** With what they were greeted before they wrote, and after which seq; null: with nothing, or it is on the roll. */
  greeting: (Greeted & { after: number }) | null;
}

export const firstModel: Model = {
  entries: [],
  hasOlder: false,
  seq: 0,
  last: null,
  reached: { hasSeq: 0, readSeq: 0 },
  details: { name: '', email: '', phone: '', own: {} },
  held: null,
  hasAgreed: false,
  mails: false,
  lamp: lit,
  usual: null,
  opens: [],
  offsetMs: 0,
  isConnected: false,
  isWelcome: false,
  isHeldUp: false,
  queue: [],
  refusals: {},
  typing: null,
  greeting: null,
};

export type Event =
  | { type: 'heard'; message: ToVisitor; now: number }
  | { type: 'older'; page: VisitorPage }
  | { type: 'queue'; action: QueueAction<Load> }
  | { type: 'refused'; id: string; refusal: Refusal }
  | { type: 'held'; held: Given | null }
  | { type: 'agreed' }
  | { type: 'greeted'; greeting: Greeted | null }
  | { type: 'held-up'; isHeldUp: boolean }
  | { type: 'connected'; isConnected: boolean }
  /** Another conversation is asked for, from its beginning. */
  | { type: 'anew' };

/** Entries by seq, each once, whichever way they came. */
export const merge = (
  known: readonly VisitorEntry[],
  more: readonly VisitorEntry[],
): VisitorEntry[] => {
  const bySeq = new Map(known.map((entry) => [entry.seq, entry]));
  for (const entry of more) bySeq.set(entry.seq, entry);
  return [...bySeq.values()].sort((a, b) => a.seq - b.seq);
};

const withGiven = (known: KnownDetails, load: Given): KnownDetails => {
  const { name = known.name, email = known.email, phone = known.phone, own } = load;
  return { name, email, phone, own: { ...known.own, ...own } };
};

/** What the visitor said of themselves, with what still waits to be sent: they need not say it twice. */
export const shownDetails = ({ details, queue, held }: Model): KnownDetails =>
  queue
    .filter(({ state }) => state !== 'failed')
    .reduce(
      (known, { load }) => (load.do === 'details' ? withGiven(known, load) : known),
      withGiven(details, held ?? {}),
    );

/** Details that have arrived are the server's from now on. */
const withArrived = (model: Model, action: QueueAction<Load>): KnownDetails => {
  const parcel = action.do === 'arrived' && model.queue.find(({ id }) => id === action.id);
  return parcel && parcel.load.do === 'details'
    ? withGiven(model.details, parcel.load)
    : model.details;
};

/** What the server has is no longer waiting here. */
const settleQueue = (queue: Queue<Load>, entries: readonly VisitorEntry[]): Queue<Load> =>
  entries.reduce((left, { id }) => step(left, { do: 'arrived', id }), queue);

/** What they were greeted with is no longer ours to show once it is on the roll. */
const withoutSaid = (
  greeting: Model['greeting'],
  entries: readonly VisitorEntry[],
): Model['greeting'] =>
  entries.some((entry) => entry.greeting !== undefined && entry.greeting === greeting?.id)
    ? null
    : greeting;

const withReached = (known: Reached, told: Reached): Reached => ({
  hasSeq: Math.max(known.hasSeq, told.hasSeq),
  readSeq: Math.max(known.readSeq, told.readSeq),
});

const heard = (model: Model, message: ToVisitor, now: number): Model => {
  switch (message.say) {
    case 'welcome':
      return {
        ...model,
        entries: message.continues ? merge(model.entries, message.entries) : message.entries,
        hasOlder: message.continues ? model.hasOlder : message.hasOlder,
        seq: message.seq,
        last: message.last,
        reached: message.reached,
        details: message.details,
        hasAgreed: model.hasAgreed || message.hasConsented,
        mails: message.mails,
        lamp: message.lamp,
        usual: message.usual,
        opens: message.opens,
        offsetMs: message.now - now,
        isWelcome: true,
        greeting: withoutSaid(model.greeting, message.entries),
        queue: settleQueue(model.queue, message.entries),
      };
    case 'entries':
      return {
        ...model,
        entries: merge(model.entries, message.entries),
        ...(message.seq > model.seq ? { seq: message.seq, last: message.last } : {}),
        greeting: withoutSaid(model.greeting, message.entries),
        queue: settleQueue(model.queue, message.entries),
        typing: message.entries.some(({ by }) => by === 'team') ? null : model.typing,
      };
    case 'reached':
      return { ...model, reached: withReached(model.reached, message.reached) };
    case 'typing':
      return { ...model, typing: { name: message.name, at: now } };
    case 'lamp':
      return {
        ...model,
        lamp: message.lamp,
        usual: message.usual,
        opens: message.opens,
        offsetMs: message.now - now,
      };
    case 'taken':
    case 'found':
    case 'refused':
    case 'pulse':
      return model;
  }
};

/** The model after an event. Pure. */
export const next = (model: Model, event: Event): Model => {
  switch (event.type) {
    case 'heard':
      return heard(model, event.message, event.now);
    case 'older':
      return {
        ...model,
        entries: merge(event.page.entries, model.entries),
        hasOlder: event.page.hasOlder,
      };
    case 'queue':
      return {
        ...model,
        queue: step(model.queue, event.action),
        details: withArrived(model, event.action),
      };
    case 'refused':
      return {
        ...model,
        queue: step(model.queue, { do: 'refused', id: event.id, reason: event.refusal.code }),
        refusals: { ...model.refusals, [event.id]: event.refusal },
      };
    case 'held':
      return { ...model, held: event.held };
    case 'greeted':
      return { ...model, greeting: event.greeting && { ...event.greeting, after: model.seq } };
    case 'agreed':
      return { ...model, hasAgreed: true };
    case 'held-up':
      return { ...model, isHeldUp: event.isHeldUp };
    case 'connected':
      return { ...model, isConnected: event.isConnected };
    case 'anew':
      return { ...model, seq: firstModel.seq, last: firstModel.last };
  }
};

export type MessageState = 'waiting' | 'sending' | 'sent' | 'arrived' | 'read' | 'failed';

/** How far one of the visitor's own messages has come. */
export const stateOf = (entry: VisitorEntry, reached: Reached): MessageState => {
  if (entry.seq <= reached.readSeq) return 'read';
  return entry.seq <= reached.hasSeq ? 'arrived' : 'sent';
};

/** How many answers the visitor has not seen yet. */
export const unreadCount = (entries: readonly VisitorEntry[], readSeq: number): number =>
  entries.filter((entry) => entry.by === 'team' && entry.seq > readSeq).length;
