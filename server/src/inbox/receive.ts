import type { Inbound } from '@porch/contract/doors';
import { wayKey } from '@porch/core/contact';
import { type Entry, type Page, THREADS_MOST, type ThreadState } from '@porch/core/conversation';
import { isZone } from '@porch/core/hours';
import { takesNotes } from '@porch/core/lamp';
import { cleanLine, NAME_LONGEST } from '@porch/core/text';
import { webAddress } from '@porch/core/website';
import type { Clock } from '../clock';
import type { Lamp } from '../lamp/lamp';
import type { News } from '../live/hub';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import {
  type ConversationRecord,
  newConversation,
  type Store,
  type ThreadRecord,
  type Writer,
} from '../store';
import type { Write, Written } from './batch';
import type { Persons } from './persons';
import type { Record, Recording } from './record';
import { isSameMessage } from './same';
import { takeWords } from './words';

/** What somebody says at a door. */
export interface Message {
  id: string;
  text: string;
  fileIds: string[];
  page: Page | null;
  /** The time zone of the device, as it says. */
  zone?: string;
  /** In which language the door speaks to them, one of its own. */
  language?: string;
  /** What else stood in the mail that it came in, '' for nothing; kept, and asked for apart. Absent: it came in none. */
  rest?: string;
}

type ProvenWay = Inbound['proves'][number];

/** What the door knows beside the words. */
export interface Circumstances {
  /** Whether they are at the door now, to be answered at once. */
  isHere: boolean;
  /** What comes before the words on the roll; refuses, where the door lets nobody speak like that. */
  before?: (thread: ThreadState | null) => Recording[];
  /** What the door itself says to it, into the conversation of these threads. */
  after?: (threadIds: readonly string[]) => Recording[];
}

/** A page as it is kept; an address that could pass for another one by a user name in it is none. */
export const cleanPage = (page: Page | null): Page | null => {
  const url = page && webAddress(cleanLine(page.url));
  return url ? { url, title: cleanLine(page.title) } : null;
};

/** The only way in: whatever somebody does at a door becomes entries here, in one transaction. */
export const createReceive = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  write: Write;
  lamp: Lamp;
  persons: Persons;
}) => {
  const { store, clock, record, write, lamp, persons } = services;

  const conversationOf = (thread: ThreadRecord | null): ConversationRecord | null =>
    thread?.conversationId ? store.conversations.byId(thread.conversationId) : null;

  const stateOf = (writer: Writer): ThreadState | null => {
    const thread = store.threads.byWriter(writer);
    const conversation = conversationOf(thread);
    return conversation?.threads.find(({ threadId }) => threadId === thread?.id) ?? null;
  };

  const make = (writer: Writer): ThreadRecord => {
    const { doorId, address } = writer;
    const thread = { id: newId(), doorId, address, conversationId: null };
    store.threads.add(thread, clock.now());
    return thread;
  };

  const begin = (thread: ThreadRecord): ConversationRecord => {
    const conversation = store.conversations.write(newConversation(thread.id, thread.doorId));
    store.threads.start(thread, conversation.id);
    return conversation;
  };

  const message = (
    writer: Writer,
    typed: Message,
    { isHere, before = () => [], after = () => [] }: Circumstances,
  ): Written<string> => {
    const known = store.threads.byWriter(writer);
    const kept = known && store.entries.inThread(known.id, typed.id);
    if (kept) {
      if (!isSameMessage(kept, typed)) throw new Refused('id-taken');
      return { result: kept.conversationId, news: [] };
    }
    const was = stateOf(writer);
    const first = before(was);
    const thread = known ?? make(writer);
    const conversation = conversationOf(thread) ?? begin(thread);
    const words = takeWords(store, typed, thread.id, ({ fromThread }) => fromThread === thread.id);
    const page = cleanPage(typed.page);
    const zone = typed.zone && isZone(typed.zone) ? { zone: typed.zone } : {};
    const language = typed.language ? { language: typed.language } : {};
    const mail = typed.rest === undefined ? {} : { isMail: true };
    const rest = typed.rest ? { hasRest: true } : {};
    if (typed.rest) store.heldMails.keepRest(thread.id, typed.id, typed.rest);
    const note = takesNotes(lamp.atDoor(writer.doorId), clock.now());
    const comes = isHere && !was?.isHere;
    const recordings: Recording[] = [
      ...first,
      ...(comes ? [{ id: newId(), happening: { kind: 'here' as const } }] : []),
      {
        id: typed.id,
        happening: {
          kind: 'visitor-said',
          ...words,
          note,
          page,
          ...zone,
          ...language,
          ...mail,
          ...rest,
        },
      },
      ...after(conversation.threads.map(({ threadId }) => threadId)),
    ];
    return { result: conversation.id, news: [record.add(conversation, thread.id, recordings)] };
  };

  /** Whoever has been proven to be reached so before is the same person. */
  const joinProven = (thread: ThreadRecord, { kind, address }: ProvenWay): News[] => {
    const key = wayKey(kind, address, store.business.read()?.country ?? '');
    const others = store.ways.provenBy(kind, key).map(({ threadId }) => threadId);
    const way = { threadId: thread.id, kind, key, address, source: 'proven' as const };
    store.ways.write({ ...way, at: clock.now() });
    const from = persons.standing(thread.id);
    for (const id of others) {
      const into = persons.standing(id);
      const fits = from && into && into.threads.length + from.threads.length <= THREADS_MOST;
      if (fits && into.id !== from.id) return persons.join(into, from, newId(), null);
    }
    return [];
  };

  /** What a network hands over: once for each of its own ids. */
  const inbound = (said: Inbound): Written<string> => {
    const { doorId, from, networkId, name } = said;
    const writer = { doorId, address: from };
    const before = store.deliveries.seen(doorId, networkId);
    if (before) return { result: store.threads.byId(before)?.conversationId ?? '', news: [] };
    const typed = { id: newId(), text: said.text, fileIds: said.fileIds, page: null };
    const called = cleanLine(name).slice(0, NAME_LONGEST);
    const taken = message(writer, typed, {
      isHere: false,
      before: (state) =>
        called && !state?.name
          ? [{ id: newId(), happening: { kind: 'details', name: called } }]
          : [],
    });
    const thread = store.threads.byWriter(writer);
    if (!thread) return taken;
    store.deliveries.see(doorId, networkId, thread.id);
    store.doors.heard(doorId, clock.now());
    const joined = said.proves.flatMap((way) => joinProven(thread, way));
    return { result: taken.result, news: [...taken.news, ...joined] };
  };

  return {
    /** Takes what a network hands over; gives the conversation's id. The same twice is once. */
    inbound: (said: Inbound): Promise<string> => write(() => inbound(said)),
    /** What is known of a writer; null before they have said anything. */
    stateOf,
    /** The writer's thread, made if need be: a file may come in before the first message. */
    threadFor: (writer: Writer): ThreadRecord => store.threads.byWriter(writer) ?? make(writer),
    /** Takes a message; gives the conversation's id. The same message id twice is once. */
    message: (writer: Writer, typed: Message, circumstances: Circumstances): Promise<string> =>
      write(() => message(writer, typed, circumstances)),
    /**
     * Something that only means anything once something was said; `recordingFor` gives null where it changes
     * nothing. Under an id that is taken it is done already, or refused. False: nothing was ever said.
     */
    within: (
      writer: Writer,
      recordingFor: (thread: ThreadState) => Recording | null,
      isSame: (before: Entry) => boolean = () => true,
    ): Promise<boolean> =>
      write(() => {
        const thread = store.threads.byWriter(writer);
        const conversation = conversationOf(thread);
        const state = stateOf(writer);
        if (!thread || !conversation || !state) return { result: false, news: [] };
        const recording = recordingFor(state);
        if (!recording) return { result: true, news: [] };
        const before = store.entries.inThread(thread.id, recording.id);
        if (before && !isSame(before)) throw new Refused('id-taken');
        if (before) return { result: true, news: [] };
        return { result: true, news: [record.add(conversation, thread.id, [recording])] };
      }),
  };
};

export type Receive = ReturnType<typeof createReceive>;
