import { toE164, toEmail } from '@porch/core/contact';
import {
  type Details,
  type Entry,
  emptyConversation,
  type OwnAnswer,
  type Page,
} from '@porch/core/conversation';
import { DRESS_LIMITS } from '@porch/core/dress/limits';
import { isZone } from '@porch/core/hours';
import { takesNotes } from '@porch/core/lamp';
import { cleanLine, EMAIL_LONGEST, NAME_LONGEST, PHONE_LONGEST } from '@porch/core/text';
import { webAddress } from '@porch/core/website';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import type { Lamp } from '../lamp/lamp';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import type { ConversationRecord, Store, VisitorRecord } from '../store';
import type { Write, Written } from './batch';
import type { Record, Recording } from './record';
import { isSameDetails, isSameMessage } from './same';
import { takeWords } from './words';

/** Who writes, as a door has made sure of it. */
export interface Sender {
  doorId: string;
  tokenHash: string;
}

export interface Message {
  id: string;
  text: string;
  fileIds: string[];
  page: Page | null;
  /** The time zone of the device, as it says. */
  zone?: string;
  /** In which language the visitor agreed to be kept; null: they did not, or were not asked. */
  consent?: string | null;
}

/** A page as it is kept; an address that could pass for another one by a user name in it is none. */
const cleanPage = (page: Page | null): Page | null => {
  const url = page && webAddress(cleanLine(page.url));
  return url ? { url, title: cleanLine(page.title) } : null;
};

/** An id of our own making is nobody else's. */
const madeHere = (): boolean => true;

const bounded = (typed: string, field: string, limit: number): string => {
  const line = cleanLine(typed);
  if (line.length > limit) throw new Refused('text-too-long', { field, limit });
  return line;
};

/** What a visitor may say of themselves; an own question is known by its id. */
export interface GivenDetails extends Omit<Details, 'own'> {
  own?: { id: string; value: string }[];
}

/** The only way in: whatever a visitor does becomes entries here, in one transaction. */
export const createReceive = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  write: Write;
  dressing: Dressing;
  lamp: Lamp;
}) => {
  const { store, clock, record, write, dressing, lamp } = services;

  const emailOf = (typed: string): string => {
    const line = bounded(typed, 'email', EMAIL_LONGEST);
    const email = line && toEmail(line);
    if (email === null) throw new Refused('email-not-understood', { field: 'email' });
    return email;
  };

  const phoneOf = (typed: string): string => {
    const line = bounded(typed, 'phone', PHONE_LONGEST);
    const phone = line && toE164(line, store.business.read()?.country ?? '');
    if (phone === null) throw new Refused('phone-not-understood', { field: 'phone' });
    return phone;
  };

  /** Answers to questions that the door asks; the question is kept as it was asked. */
  const answersOf = (doorId: string, given: NonNullable<GivenDetails['own']>): OwnAnswer[] =>
    given.flatMap(({ id, value }) => {
      const asked = dressing.questionOf(doorId, id);
      if (!asked) return [];
      return { id, label: asked.label, value: bounded(value, id, DRESS_LIMITS.textLongest) };
    });

  /** Details in the form in which they are kept. An empty one takes back what was said. */
  const cleanDetails = (doorId: string, typed: GivenDetails): Details => ({
    ...(typed.name === undefined ? {} : { name: bounded(typed.name, 'name', NAME_LONGEST) }),
    ...(typed.email === undefined ? {} : { email: emailOf(typed.email) }),
    ...(typed.phone === undefined ? {} : { phone: phoneOf(typed.phone) }),
    ...(typed.own === undefined ? {} : { own: answersOf(doorId, typed.own) }),
  });

  /** What a door wants agreed to before anything is kept: refuses, or gives what is to be noted. */
  const consentFor = (
    doorId: string,
    known: ConversationRecord | null,
    language: string | null | undefined,
  ): Recording[] => {
    if (known?.state.hasConsented) return [];
    if (typeof language !== 'string') {
      if (dressing.isConsentAsked(doorId)) throw new Refused('consent-needed');
      return [];
    }
    const consent = dressing.consentOf(doorId, language);
    if (!consent) return [];
    return [{ id: newId(), happening: { kind: 'consented', ...consent } }];
  };

  const visitorOf = (sender: Sender): VisitorRecord | null => {
    const visitor = store.visitors.byToken(sender.tokenHash);
    if (visitor && visitor.doorId !== sender.doorId) throw new Refused('token-unknown');
    return visitor;
  };

  const makeVisitor = (sender: Sender): VisitorRecord => {
    const visitor = { id: newId(), ...sender };
    store.visitors.add(visitor, clock.now());
    return visitor;
  };

  const conversationOf = (sender: Sender): ConversationRecord | null => {
    const visitor = visitorOf(sender);
    return visitor && store.conversations.ofVisitor(visitor.id);
  };

  const makeConversation = (visitor: VisitorRecord): ConversationRecord => {
    const conversation = {
      id: newId(),
      doorId: visitor.doorId,
      visitorId: visitor.id,
      tokenHash: visitor.tokenHash,
      state: emptyConversation,
    };
    store.conversations.add(conversation);
    return conversation;
  };

  const message = (sender: Sender, typed: Message, isHere: boolean): Written<string> => {
    const knownVisitor = visitorOf(sender);
    const known = knownVisitor && store.conversations.ofVisitor(knownVisitor.id);
    const before = known && store.entries.byId(known.id, typed.id);
    if (before) {
      if (!isSameMessage(before, typed)) throw new Refused('id-taken');
      return { result: before.conversationId, news: [] };
    }
    const consent = consentFor(sender.doorId, known, typed.consent);
    const visitor = knownVisitor ?? makeVisitor(sender);
    const conversation = known ?? makeConversation(visitor);
    const isTheirs = (file: { visitorId: string | null }) => file.visitorId === visitor.id;
    const words = takeWords(store, typed, conversation.id, isTheirs);
    const page = cleanPage(typed.page);
    const zone = typed.zone && isZone(typed.zone) ? { zone: typed.zone } : {};
    const note = takesNotes(lamp.now(), clock.now());
    const comes = isHere && !conversation.state.isHere;
    const recordings: Recording[] = [
      ...consent,
      ...(comes ? [{ id: newId(), happening: { kind: 'here' as const } }] : []),
      { id: typed.id, happening: { kind: 'visitor-said', ...words, note, page, ...zone } },
    ];
    return { result: conversation.id, news: [record(conversation, recordings)] };
  };

  /** Something that only means anything within a conversation that there is already. */
  const within = (
    sender: Sender,
    recordingFor: (conversation: ConversationRecord) => Recording | null,
    isSame: (before: Entry) => boolean,
  ): Promise<boolean> =>
    write(() => {
      const conversation = conversationOf(sender);
      const recording = conversation && recordingFor(conversation);
      if (!conversation || !recording) return { result: conversation !== null, news: [] };
      const before = store.entries.byId(conversation.id, recording.id);
      if (before && !isSame(before)) throw new Refused('id-taken');
      if (before) return { result: true, news: [] };
      return { result: true, news: [record(conversation, [recording])] };
    });

  return {
    conversationOf,
    /** Refuses whoever has not agreed to be kept, where the door asks for that. */
    refuseWithoutConsent: (sender: Sender, consent: string | null): void => {
      consentFor(sender.doorId, conversationOf(sender), consent);
    },
    /** The visitor's record, made if need be: a file may come in before the first message. */
    visitorFor: (sender: Sender, consent?: string | null): VisitorRecord => {
      consentFor(sender.doorId, conversationOf(sender), consent);
      return visitorOf(sender) ?? makeVisitor(sender);
    },
    /** Refuses details that could not be kept, without keeping them. */
    check: (sender: Sender, typed: GivenDetails): void => {
      cleanDetails(sender.doorId, typed);
    },
    /** Takes a message; gives the conversation's id. The same message id twice is once. */
    message: (sender: Sender, typed: Message, isHere: boolean): Promise<string> =>
      write(() => message(sender, typed, isHere)),
    /** Who the visitor is and how they can be reached. False when nothing was ever said. */
    details: (sender: Sender, id: string, typed: GivenDetails): Promise<boolean> => {
      const details = cleanDetails(sender.doorId, typed);
      return within(
        sender,
        () => ({ id, happening: { kind: 'details', ...details } }),
        (before) => isSameDetails(before, details),
      );
    },
    page: (sender: Sender, id: string, typed: Page): Promise<boolean> => {
      const page = cleanPage(typed);
      return within(
        sender,
        ({ state }) =>
          page && page.url !== state.page?.url
            ? { id, happening: { kind: 'waypoint', page } }
            : null,
        (before) => before.kind === 'waypoint',
      );
    },
    /** The panel has everything up to a seq, or its visitor has read it. */
    progress: async (
      sender: Sender,
      kind: 'visitor-has' | 'visitor-read',
      seq: number,
    ): Promise<void> => {
      const stepOf = ({ state }: ConversationRecord): Recording | null => {
        // Not further than to what was said: an entry that says how far would be one to say more of.
        const upTo = Math.min(seq, state.saidSeq);
        const was = kind === 'visitor-has' ? state.visitorHasSeq : state.visitorReadSeq;
        return upTo > was ? { id: newId(), happening: { kind, upTo } } : null;
      };
      const conversation = conversationOf(sender);
      // Most of what a panel says here is known already: that is no reason for a transaction.
      if (conversation && stepOf(conversation)) await within(sender, stepOf, madeHere);
    },
    /** The visitor came to a page with the panel, or left the last one. */
    presence: (sender: Sender, isHere: boolean): Promise<boolean> =>
      within(
        sender,
        ({ state }) =>
          state.isHere === isHere
            ? null
            : { id: newId(), happening: { kind: isHere ? 'here' : 'gone' } },
        madeHere,
      ),
  };
};

export type Receive = ReturnType<typeof createReceive>;
