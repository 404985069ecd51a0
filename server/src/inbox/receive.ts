import { type Details, emptyConversation, type Page } from '@porch/core/conversation';
import { takesNotes } from '@porch/core/lamp';
import {
  cleanLine,
  EMAIL_LONGEST,
  looksLikeEmail,
  looksLikePhone,
  NAME_LONGEST,
  PHONE_LONGEST,
} from '@porch/core/text';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import type { ConversationRecord, Store, VisitorRecord } from '../store';
import type { Write, Written } from './batch';
import type { Record, Recording } from './record';
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
}

const cleanPage = (page: Page | null): Page | null => {
  if (!page || !/^https?:\/\//.test(page.url)) return null;
  return { url: cleanLine(page.url), title: cleanLine(page.title) };
};

const bounded = (typed: string, field: string, limit: number): string => {
  const line = cleanLine(typed);
  if (line.length > limit) throw new Refused('text-too-long', { field, limit });
  return line;
};

/** Details in the form in which they are kept. An empty one takes back what was said. */
const cleanDetails = (typed: Details): Details => {
  const details: Details = {};
  if (typed.name !== undefined) details.name = bounded(typed.name, 'name', NAME_LONGEST);
  if (typed.email !== undefined) {
    details.email = bounded(typed.email, 'email', EMAIL_LONGEST);
    if (details.email && !looksLikeEmail(details.email)) {
      throw new Refused('email-not-understood', { field: 'email' });
    }
  }
  if (typed.phone !== undefined) {
    details.phone = bounded(typed.phone, 'phone', PHONE_LONGEST);
    if (details.phone && !looksLikePhone(details.phone)) {
      throw new Refused('phone-not-understood', { field: 'phone' });
    }
  }
  return details;
};

/** The only way in: whatever a visitor does becomes entries here, in one transaction. */
export const createReceive = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  write: Write;
}) => {
  const { store, clock, record, write } = services;

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
    const visitor = visitorOf(sender) ?? makeVisitor(sender);
    const known = store.conversations.ofVisitor(visitor.id);
    if (known && store.entries.byId(known.id, typed.id)) return { result: known.id, news: [] };
    const conversation = known ?? makeConversation(visitor);
    const isTheirs = (file: { visitorId: string | null }) => file.visitorId === visitor.id;
    const words = takeWords(store, typed, conversation.id, isTheirs);
    const page = cleanPage(typed.page);
    const note = takesNotes(store.business.lamp(), clock.now());
    const recordings: Recording[] = [
      { id: typed.id, happening: { kind: 'visitor-said', ...words, note, page } },
    ];
    if (isHere && !conversation.state.isHere) {
      recordings.unshift({ id: newId(), happening: { kind: 'here' } });
    }
    return { result: conversation.id, news: [record(conversation, recordings)] };
  };

  /** Something that only means anything within a conversation that there is already. */
  const within = (
    sender: Sender,
    recordingFor: (conversation: ConversationRecord) => Recording | null,
  ): Promise<boolean> =>
    write(() => {
      const conversation = conversationOf(sender);
      const recording = conversation && recordingFor(conversation);
      if (!conversation || !recording) return { result: conversation !== null, news: [] };
      if (store.entries.byId(conversation.id, recording.id)) return { result: true, news: [] };
      return { result: true, news: [record(conversation, [recording])] };
    });

  return {
    conversationOf,
    /** The visitor's record, made if need be: a file may come in before the first message. */
    visitorFor: (sender: Sender): VisitorRecord => visitorOf(sender) ?? makeVisitor(sender),
    /** Takes a message; gives the conversation's id. The same message id twice is once. */
    message: (sender: Sender, typed: Message, isHere: boolean): Promise<string> =>
      write(() => message(sender, typed, isHere)),
    /** Who the visitor is and how they can be reached. False when nothing was ever said. */
    details: (sender: Sender, id: string, typed: Details): Promise<boolean> => {
      const details = cleanDetails(typed);
      return within(sender, () => ({ id, happening: { kind: 'details', ...details } }));
    },
    page: (sender: Sender, id: string, typed: Page): Promise<boolean> => {
      const page = cleanPage(typed);
      return within(sender, ({ state }) =>
        page && page.url !== state.page?.url ? { id, happening: { kind: 'waypoint', page } } : null,
      );
    },
    /** The panel has everything up to a seq, or its visitor has read it. */
    progress: (sender: Sender, kind: 'visitor-has' | 'visitor-read', seq: number) =>
      within(sender, ({ state }) => {
        const upTo = Math.min(seq, state.lastSeq);
        const was = kind === 'visitor-has' ? state.visitorHasSeq : state.visitorReadSeq;
        return upTo > was ? { id: newId(), happening: { kind, upTo } } : null;
      }),
    /** The visitor came to a page with the panel, or left the last one. */
    presence: (sender: Sender, isHere: boolean): Promise<boolean> =>
      within(sender, ({ state }) =>
        state.isHere === isHere
          ? null
          : { id: newId(), happening: { kind: isHere ? 'here' : 'gone' } },
      ),
  };
};

export type Receive = ReturnType<typeof createReceive>;
