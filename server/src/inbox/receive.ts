import { createHash } from 'node:crypto';
import type { Changed, Inbound, Stopped } from '@porch/contract/doors';
import { wayKey } from '@porch/core/contact';
import {
  type Entry,
  type Happening,
  THREADS_MOST,
  type ThreadState,
} from '@porch/core/conversation';
import { takesNotes } from '@porch/core/lamp';
import { bareSubject } from '@porch/core/mail';
import { cleanLine, cleanMessage, MESSAGE_LONGEST, NAME_LONGEST } from '@porch/core/text';
import type { Clock } from '../clock';
import type { Lamp } from '../lamp/lamp';
import type { News } from '../live/hub';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import {
  type ConversationRecord,
  type FileRecord,
  newConversation,
  type Store,
  type ThreadRecord,
  toMention,
  type Writer,
} from '../store';
import { createMemo } from '../store/memo';
import type { Write, Written } from './batch';
import type { Claims } from './claims';
import type { Persons } from './persons';
import type { Record, Recording } from './record';
import { createReusedIds } from './reused-ids';
import { cleanPage, type Message, saidOf } from './said';
import { isSameMessage } from './same';
import { takeWords } from './words';

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

const SUBJECT_LONGEST = 200;
const WAY_KEYS_MOST = 1_000;
/** Among so many entries is what somebody said last. */
const ENOUGH_LOOKED_BACK = 40;

/** What is told within this was said as it came. */
const SAME_MOMENT_MS = 2_000;
/** A network that says that something was said longer ago is not believed. */
const AHEAD_MOST_MS = 24 * 3_600_000;
const SAID_AGO_MOST_MS = 30 * 24 * 3_600_000;

/** What one writer says is taken in turn with what others say, and in the order in which they say it. */
const laneOf = ({ doorId, address }: Writer): string => `${doorId} ${address}`;

/** How somebody is reached for sure, of the ways that are told of people. */
const reachedBy = ({ proves }: Inbound): { phone?: string; email?: string } =>
  Object.fromEntries(
    proves
      .filter(({ kind }) => kind === 'phone' || kind === 'email')
      .map(({ kind, address }) => [kind, address]),
  );

/** The only way in: whatever somebody does at a door becomes entries here, in one transaction. */
export const createReceive = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  write: Write;
  lamp: Lamp;
  persons: Persons;
  claims: Claims;
}) => {
  const { store, clock, record, write, lamp, persons, claims } = services;
  const reusedIds = createReusedIds(services);
  // What a number is written like is worked out once, not with each message from it.
  const wayKeys = createMemo<string>(WAY_KEYS_MOST);

  const conversationOf = (thread: ThreadRecord | null): ConversationRecord | null =>
    thread?.conversationId ? store.conversations.byId(thread.conversationId) : null;

  const stateIn = (thread: ThreadRecord | null): ThreadState | null =>
    conversationOf(thread)?.threads.find(({ threadId }) => threadId === thread?.id) ?? null;

  const stateOf = (writer: Writer): ThreadState | null => stateIn(store.threads.byWriter(writer));

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

  /** When a network says that something was said, where that is before now and not out of all measure. */
  const earlier = (
    saidAt: number | undefined,
    order: number | undefined,
  ): { saidAt?: number; networkAt?: number; order?: number } => {
    if (saidAt === undefined) return {};
    const agoMs = clock.now() - saidAt;
    const counted = order === undefined ? {} : { order };
    if (agoMs >= SAID_AGO_MOST_MS || agoMs <= -AHEAD_MOST_MS) return counted;
    // Two clocks are never the same: what was said within a moment was said as it came, but for its own writer's order.
    return { ...counted, ...(agoMs > SAME_MOMENT_MS ? { saidAt } : { networkAt: saidAt }) };
  };

  /** What a mail is about, where that is not what the last one was about; '' otherwise. */
  const newSubject = (threadId: string, subject = ''): string => {
    if (subject === '') return '';
    const bare = cleanLine(bareSubject(subject)).slice(0, SUBJECT_LONGEST);
    if (bare === '' || bare === store.mailFacts.subject(threadId)) return '';
    store.mailFacts.setSubject(threadId, bare);
    return bare;
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
    const was = stateIn(known);
    const first = before(was);
    const thread = known ?? make(writer);
    const conversation = conversationOf(thread) ?? begin(thread);
    const isTheirs = ({ fromThread }: FileRecord) => fromThread === thread.id;
    const { text, files } = takeWords(store, typed, thread.id, isTheirs);
    const apart = [typed.more, typed.rest].filter(Boolean).join('\n\n');
    if (apart) store.heldMails.keepRest(thread.id, typed.id, apart);
    if (typed.device) store.likeness.devices.write(thread.id, typed.device);
    const { pictures = [] } = typed;
    store.mailFacts.keepPictures(thread.id, typed.id, pictures);
    const happening = saidOf(typed, {
      text,
      files,
      note: takesNotes(lamp.atDoor(writer.doorId), clock.now()),
      page: cleanPage(typed.page),
      hasRest: apart !== '',
      subject: newSubject(thread.id, typed.subject),
      when: earlier(typed.saidAt, typed.order),
    });
    const recordings: Recording[] = [...first];
    if (isHere && !was?.isHere) recordings.push({ id: newId(), happening: { kind: 'here' } });
    recordings.push({ id: typed.id, happening });
    recordings.push(...after(conversation.threads.map(({ threadId }) => threadId)));
    return { result: conversation.id, news: [record.add(conversation, thread.id, recordings)] };
  };

  /** Whoever has been proven to be reached so before is the same person. */
  const joinProven = (thread: ThreadRecord, { kind, address }: ProvenWay): News[] => {
    const country = store.business.read()?.country ?? '';
    const asked = `${kind} ${country} ${address}`;
    const key = wayKeys.get(asked) ?? wayKey(kind, address, country);
    wayKeys.put(asked, key);
    const others = store.ways.provenBy(kind, key).map(({ threadId }) => threadId);
    const way = { threadId: thread.id, kind, key, address, source: 'proven' as const };
    store.ways.write({ ...way, at: clock.now() });
    const from = persons.standing(thread.id);
    for (const id of others) {
      const into = persons.standing(id);
      const fits = from && into && into.threads.length + from.threads.length <= THREADS_MOST;
      if (!fits || into.id === from.id) continue;
      // Two people may share a number: what somebody has parted stays so.
      if (!store.likeness.notSame.isSaid(into.id, from.id))
        return persons.join(into, from, newId(), null);
    }
    return [];
  };

  /** Whoever says the code of somebody's conversation goes on with it. */
  const goOn = (thread: ThreadRecord, text: string): News[] => {
    const claimed = claims.threadIn(text, thread.id);
    const into = claimed === null ? null : persons.standing(claimed);
    const from = persons.standing(thread.id);
    if (!into || !from || into.id === from.id) return [];
    if (into.threads.length + from.threads.length > THREADS_MOST) return [];
    return persons.join(into, from, newId(), 'code');
  };

  /** What a network hands over: once for each of its own ids. */
  const inbound = (said: Inbound): Written<string> => {
    const { doorId, from, networkId, name } = said;
    const writer = { doorId, address: from };
    const before = reusedIds.seen(said);
    if (before !== null) {
      return { result: store.threads.byId(before)?.conversationId ?? '', news: [] };
    }
    const { fileIds, saidAt } = said;
    const whole = cleanMessage(said.text);
    const text = whole.slice(0, MESSAGE_LONGEST);
    const more = whole.slice(MESSAGE_LONGEST);
    // What cannot be shown was said all the same.
    const hasFiles = [fileIds, said.missing, said.coming].some((some) => some?.length);
    const isNothing = !text && !said.mail?.subject && !hasFiles && !said.call;
    const missing = isNothing ? [''] : said.missing;
    const { call } = said;
    const typed = {
      id: newId(),
      // Some say all of it in the subject.
      text: text || (hasFiles ? '' : (said.mail?.subject ?? '')),
      more,
      fileIds,
      page: null,
      saidAt,
      order: said.order,
      missing,
      coming: said.coming,
      call,
      ...said.mail,
      setAside: said.setAside,
    };
    const called = cleanLine(name).slice(0, NAME_LONGEST);
    const taken = message(writer, typed, {
      isHere: false,
      before: (state) => {
        const isKnown = (field: 'name' | 'phone' | 'email', value: string): boolean => {
          // A number changes hands: whoever is called otherwise now may be somebody else, and the roll says so.
          const isCalledOtherwise = field === 'name' && state?.name !== value && !said.setAside;
          return Boolean(state?.[field]) && !isCalledOtherwise;
        };
        const news = Object.entries({ name: called, email: said.email, ...reachedBy(said) }).filter(
          ([field, value]) => value && !isKnown(field as 'name' | 'phone' | 'email', value),
        );
        if (news.length === 0) return [];
        return [{ id: newId(), happening: { kind: 'details', ...Object.fromEntries(news) } }];
      },
    });
    const thread = store.threads.byWriter(writer);
    if (!thread) return taken;
    for (const name of reusedIds.namesOf(said)) {
      store.deliveries.see(doorId, name, thread.id, typed.id);
    }
    store.doors.heard(doorId, clock.now(), thread.id);
    const claimed = goOn(thread, said.text);
    const joined = said.proves.flatMap((way) => joinProven(thread, way));
    const early = store.deliveries.takeEarlyChange(doorId, networkId);
    const later = early ? changeTo(thread.id, typed.id, early) : [];
    return { result: taken.result, news: [...taken.news, ...claimed, ...joined, ...later] };
  };

  /** An entry of a thread is changed by its writer to other words, or taken back. The same change twice is once. */
  const changeTo = (
    threadId: string,
    entryId: string,
    { id: changeId, text, saidAt }: Pick<Changed, 'id' | 'text' | 'saidAt'>,
  ): News[] => {
    const entry = store.entries.inThread(threadId, entryId);
    const conversation = persons.standing(threadId);
    // Two changes in one moment of the network's clock are two.
    const which = changeId ?? `${saidAt} ${text}`;
    const mark = createHash('sha256').update(`${entry?.seq} ${which}`).digest('base64url');
    const id = `change-${mark.slice(0, 30)}`;
    const isDone = store.entries.inThread(threadId, id) !== null;
    if (entry?.kind !== 'visitor-said' || !conversation || isDone) return [];
    const words = cleanMessage(text ?? '').slice(0, MESSAGE_LONGEST);
    const what = { of: entry.seq, saidAt };
    const happening: Happening = words
      ? { kind: 'visitor-changed', ...what, text: words }
      : { kind: 'visitor-withdrew', ...what };
    return [record.add(conversation, threadId, [{ id, happening }])];
  };

  /** A file that was coming is here, or null: it could not be had. Once a place is filled it stays so. */
  const fileCame = (
    threadId: string,
    entryId: string,
    place: number,
    fileId: string | null,
    canRetry = false,
  ): Written<null> => {
    const entry = store.entries.inThread(threadId, entryId);
    const conversation = persons.standing(threadId);
    if (entry?.kind !== 'visitor-said' || !conversation) return { result: null, news: [] };
    const file = fileId === null ? null : store.files.byId(fileId);
    const id = `file-${entry.seq}-${place}-${file ? 'here' : newId()}`;
    if (file && store.entries.inThread(threadId, id)) return { result: null, news: [] };
    if (file) store.files.attach(file.id, threadId);
    const mention = file && toMention(file);
    const again = canRetry ? { canRetry } : {};
    const happening = { kind: 'file-came' as const, of: entry.seq, place, file: mention, ...again };
    return { result: null, news: [record.add(conversation, threadId, [{ id, happening }])] };
  };

  /** What a network says of a change; also before it has handed over the message. */
  const changed = (said: Changed): Written<null> => {
    const seen = store.deliveries.seen(said.doorId, said.networkId);
    if (!seen) {
      store.deliveries.keepEarlyChange(said, clock.now());
      return { result: null, news: [] };
    }
    // Only whoever said it has it to change.
    const isTheirs = store.threads.byId(seen.threadId)?.address === said.from;
    if (!seen.entryId || !isTheirs) return { result: null, news: [] };
    return { result: null, news: changeTo(seen.threadId, seen.entryId, said) };
  };

  /** Somebody wants nothing more by a door, or something again; known of people who never wrote as well. */
  const stopped = ({ doorId, from, networkId, isStopped, word }: Stopped): Written<null> => {
    if (store.deliveries.seen(doorId, networkId)) return { result: null, news: [] };
    const writer = { doorId, address: from };
    const thread = store.threads.byWriter(writer) ?? make(writer);
    const conversation = conversationOf(thread) ?? begin(thread);
    const id = newId();
    store.deliveries.see(doorId, networkId, thread.id, id);
    store.doors.heard(doorId, clock.now(), thread.id);
    const happening = { kind: 'stopped' as const, isStopped, word: cleanLine(word) };
    return { result: null, news: [record.add(conversation, thread.id, [{ id, happening }])] };
  };

  return {
    /** Takes what a network hands over, in a transaction that is under way. The same twice is once. */
    inboundNow: inbound,
    /** Whether what a network hands over is here already. */
    isKnown: (said: Inbound): boolean => reusedIds.seen(said) !== null,
    fileCameNow: fileCame,
    /** Takes that somebody changed what a network had handed over, or took it back. The same twice is once. */
    changedNow: changed,
    /** Takes that somebody wants nothing more by a door, or something again. The same twice is once. */
    stoppedNow: stopped,
    /** Somebody has been proved to be reached so: whoever was before is the same person. */
    prove: async (writer: Writer, ways: readonly ProvenWay[]): Promise<void> => {
      if (ways.length === 0) return;
      await write(() => {
        const thread = store.threads.byWriter(writer);
        if (!conversationOf(thread) || !thread) return { result: null, news: [] };
        return { result: null, news: ways.flatMap((way) => joinProven(thread, way)) };
      }, laneOf(writer));
    },
    /** What is known of a writer; null before they have said anything. */
    stateOf,
    /** The writer's thread, made if need be: a file may come in before the first message. */
    threadFor: (writer: Writer): ThreadRecord => store.threads.byWriter(writer) ?? make(writer),
    /** Takes a message; gives the conversation's id. The same message id twice is once. */
    message: (writer: Writer, typed: Message, circumstances: Circumstances): Promise<string> =>
      write(() => message(writer, typed, circumstances), laneOf(writer)),
    /** They say that a card answered what they left. False: nothing of it is open, or something else of theirs is. */
    enough: (writer: Writer, id: string): Promise<boolean> =>
      write(() => {
        const thread = store.threads.byWriter(writer);
        const conversation = conversationOf(thread);
        if (!thread || !conversation) return { result: false, news: [] };
        const before = store.entries.within(persons.scopeOf(conversation), id);
        if (before) return { result: before.kind === 'wrapped-up', news: [] };
        const waits = conversation.threads.filter(
          ({ aside, waitingSince }) => !aside && waitingSince !== null,
        );
        const isTheirs = waits.length === 1 && waits[0]?.threadId === thread.id;
        const last = store.entries
          .threadBefore(thread.id, Number.MAX_SAFE_INTEGER, ENOUGH_LOOKED_BACK)
          .findLast(({ kind }) => kind === 'visitor-said' || kind === 'team-said');
        // What was said after the card is answered by nothing.
        const isCard = last?.kind === 'visitor-said' && last.setAside === 'card';
        if (!isTheirs || !isCard) return { result: false, news: [] };
        const happening = { kind: 'wrapped-up' as const, memberId: null };
        return { result: true, news: [record.add(conversation, null, [{ id, happening }])] };
      }, laneOf(writer)),
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
      }, laneOf(writer)),
  };
};

export type Receive = ReturnType<typeof createReceive>;
