import type { DoorCan } from '@porch/contract/doors';
import type { Deed, DeedDone } from '@porch/contract/line';
import type { Member } from '@porch/contract/people';
import {
  type Entry,
  type Happening,
  type Owed,
  type ShelfSaid,
  type ThreadState,
  threadMeant,
  type Way,
} from '@porch/core/conversation';
import { OWED_AHEAD_MS } from '@porch/core/promises';
import { goAsLinks, networkRouteOf, withLinks } from '@porch/core/routes';
import { segmentsOf } from '@porch/core/segments';
import { allFiles, wholeText } from '@porch/core/shelf/plain';
import { cleanLine } from '@porch/core/text';
import type { Clock } from '../clock';
import type { News } from '../live/hub';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import { type ConversationRecord, type Store, type ThreadRecord, toRow } from '../store';
import type { Write, Written } from './batch';
import type { Persons } from './persons';
import type { Record } from './record';
import { isSameDeed } from './same';
import { takeWords } from './words';

type WithTheWhole = Extract<Deed, { do: 'read' | 'wrap-up' | 'put-by' | 'take-back' | 'own-mail' }>;
type WithOwed = Extract<Deed, { do: 'owe' | 'owe-otherwise' | 'owe-done' | 'owe-again' }>;

const isWithOwed = (deed: WithTheWhole | WithOwed): deed is WithOwed => deed.do.startsWith('owe');

const shutCodes = {
  closed: 'door-closed',
  mute: 'door-mute',
  stopped: 'person-stopped',
  window: 'window-closed',
} as const;

/** The longest that a conversation may be put by. */
export const PUT_BY_LONGEST_MS = 366 * 24 * 3_600_000;

/** How what is said goes out. The doors know; whoever answers does not. */
export interface Carrying {
  /** Null where nothing can go out. */
  at(doorId: string): {
    way: Way;
    can: Omit<DoorCan, 'receipts' | 'typing'>;
    /** A network carries it, which may not be done at any time. */
    isCarried: boolean;
    isClosed: boolean;
  } | null;
  /** In the transaction that writes it. */
  begin(entry: Entry, thread: ThreadRecord): void;
}

/** Things of the shelf as they are said to somebody; in the transaction that says them. */
export interface ShelfOnWay {
  say(
    ids: readonly string[],
    thread: ThreadRecord,
    state: ThreadState | null,
    memberId: string,
  ): ShelfSaid[];
}

/** The only way out: whatever the team does in a conversation becomes entries here. */
export const createReply = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  write: Write;
  persons: Persons;
  carrying: Carrying;
  shelfSaying: ShelfOnWay;
}) => {
  const { store, clock, record, write, persons, carrying, shelfSaying } = services;

  const checkedTime = (until: number): number => {
    const aheadMs = until - clock.now();
    if (aheadMs <= 0) throw new Refused('time-not-ahead', { field: 'until' });
    if (aheadMs > PUT_BY_LONGEST_MS) {
      throw new Refused('bad-request', { field: 'until', limit: PUT_BY_LONGEST_MS });
    }
    return until;
  };

  /** In which conversation a deed is done: an answer that names its thread goes where that stands now. */
  const placeOf = (conversationId: string, deed: Deed): ConversationRecord | null =>
    persons.standing((deed.do === 'say' && deed.threadId) || conversationId);

  const threadIn = ({ threads }: ConversationRecord, id: string): ThreadState | null =>
    threads.find(({ threadId }) => threadId === id) ?? null;

  /** What a network would refuse is refused before it is said: nothing goes into the void. */
  const refuseShut = (
    { isClosed, can: { windowMs, isMute } }: NonNullable<ReturnType<Carrying['at']>>,
    thread: ThreadState | null,
  ): void => {
    const heardAt = thread?.heardAt ?? null;
    const isStopped = thread?.isStopped ?? false;
    const route = networkRouteOf({ heardAt, windowMs, isClosed, isStopped, isMute }, clock.now());
    if (route.to === 'shut') throw new Refused(shutCodes[route.why]);
  };

  /** As it will be on its way: with a link for each file that the network does not carry. */
  const refuseTooLong = (
    can: NonNullable<ReturnType<Carrying['at']>>['can'],
    said: ReturnType<typeof takeWords> & { shelf?: ShelfSaid[] },
  ): void => {
    const files = allFiles(said);
    const whole = withLinks(wholeText(said), goAsLinks(can, files) ? files.length : 0);
    if (whole.length > can.textLongest) {
      throw new Refused('text-too-long', { limit: can.textLongest });
    }
    if (can.segmentsMost !== undefined && segmentsOf(whole).count > can.segmentsMost) {
      throw new Refused('too-many-segments', { limit: can.segmentsMost });
    }
  };

  const say = (
    deed: Extract<Deed, { do: 'say' }>,
    member: Member,
    conversation: ConversationRecord,
  ): News[] => {
    const threadId = deed.threadId ?? threadMeant(conversation.threads)?.threadId;
    if (threadId === undefined) throw new Refused('whom-unclear');
    const thread = store.threads.byId(threadId);
    if (!thread) throw new Refused('not-found');
    const known = carrying.at(thread.doorId);
    if (!known) throw new Refused('door-closed');
    const { way, can } = known;
    if (known.isCarried) refuseShut(known, threadIn(conversation, threadId));
    const words = takeWords(store, deed, threadId, ({ fromMember }) => fromMember !== null);
    const { shelf: ids = [] } = deed;
    const shelf = shelfSaying.say(ids, thread, threadIn(conversation, threadId), member.id);
    refuseTooLong(can, { ...words, shelf });
    const happening = {
      kind: 'team-said' as const,
      memberId: member.id,
      ...words,
      way,
      ...(deed.picked ? { picked: deed.picked } : {}),
      ...(shelf.length > 0 ? { shelf } : {}),
    };
    const news = record.add(conversation, threadId, [{ id: deed.id, happening }]);
    for (const entry of news.entries) if (entry.id === deed.id) carrying.begin(entry, thread);
    return [news];
  };

  /** What a deed with the whole of a conversation comes to; null when it would change nothing. */
  const happeningOf = (
    deed: WithTheWhole,
    member: Member,
    { state, threads }: ConversationRecord,
  ): Happening | null => {
    const by = { memberId: member.id };
    switch (deed.do) {
      case 'read': {
        const upTo = Math.min(deed.upTo, state.saidSeq);
        // What came in by joining may be unread though later things were read.
        const isNews = upTo > state.teamReadSeq || state.unread.some((seq) => seq <= upTo);
        return isNews ? { kind: 'team-read', ...by, upTo } : null;
      }
      case 'wrap-up':
        return state.aside === 'wrapped-up' ? null : { kind: 'wrapped-up', ...by };
      case 'put-by':
        return { kind: 'put-by', ...by, until: checkedTime(deed.until) };
      case 'take-back':
        return state.aside === null ? null : { kind: 'taken-back', ...by };
      case 'own-mail': {
        const { of, isTheirs } = deed;
        const held = store.heldMails.byId(of);
        const isHere = threads.some(({ threadId }) => threadId === held?.threadId);
        if (!held || !isHere) throw new Refused('not-found');
        // What was let in stays in; what was not may be, after all.
        const isKnown = held.isTheirs === 1 || (held.isTheirs === 0 && !isTheirs);
        return isKnown ? null : { kind: 'held-decided', ...by, of, isTheirs };
      }
    }
  };

  const join = (
    { id, other }: Extract<Deed, { do: 'join' }>,
    member: Member,
    conversation: ConversationRecord,
  ): News[] => {
    const from = store.conversations.byId(other);
    if (!from) throw new Refused('not-found');
    // Somebody else has said the same meanwhile.
    if (persons.standing(other)?.id === conversation.id) return [];
    return persons.join(conversation, from, id, member.id);
  };

  /** What is owed as it is kept: of this house's people, at a time that is not out of all measure. */
  const checkedOwed = ({ what, dueAt, remindAt, whose }: Owed): Owed => {
    const latest = clock.now() + OWED_AHEAD_MS;
    for (const [field, at] of Object.entries({ dueAt, remindAt: remindAt ?? dueAt })) {
      if (at > latest) throw new Refused('bad-request', { field, limit: OWED_AHEAD_MS });
    }
    if (whose !== null && !store.members.byId(whose)) throw new Refused('not-found');
    return { what: cleanLine(what), dueAt, remindAt, whose };
  };

  /** What a deed with something owed comes to; null when it would change nothing. */
  const owedBy = (
    deed: WithOwed,
    { id: memberId }: Member,
    { threads }: ConversationRecord,
  ): Happening | null => {
    const known = store.followUps.byId(deed.do === 'owe' ? deed.id : deed.of);
    if (deed.do === 'owe') {
      if (known) throw new Refused('id-taken');
      return { kind: 'owed', memberId, why: 'hand', ...checkedOwed(deed) };
    }
    if (!known || !threads.some(({ threadId }) => threadId === known.conversationId)) {
      throw new Refused('not-found');
    }
    const { of } = deed;
    switch (deed.do) {
      case 'owe-otherwise':
        return { kind: 'owed-changed', of, memberId, ...checkedOwed(deed) };
      case 'owe-done':
        return known.doneAt === null ? { kind: 'owed-done', of, memberId } : null;
      case 'owe-again':
        return known.doneAt === null ? null : { kind: 'owed-undone', of, memberId };
    }
  };

  const newsOf = (deed: Deed, member: Member, known: ConversationRecord): News[] => {
    const conversation = record.upToDate(known);
    switch (deed.do) {
      case 'say':
        return say(deed, member, conversation);
      case 'join':
        return join(deed, member, conversation);
      case 'part':
        return persons.part(conversation, deed.threadIds, deed.id, newId(), member.id, clock.now());
    }
    const happening = isWithOwed(deed)
      ? owedBy(deed, member, conversation)
      : happeningOf(deed, member, conversation);
    return happening ? [record.add(conversation, null, [{ id: deed.id, happening }])] : [];
  };

  const deed = (conversationId: string, what: Deed, member: Member): Written<DeedDone> => {
    const conversation = placeOf(conversationId, what);
    if (!conversation) throw new Refused('not-found');
    const done = store.entries.within(persons.scopeOf(conversation), what.id);
    if (done && !isSameDeed(done, what, member.id)) throw new Refused('id-taken');
    if (done) return { result: { entries: [done], row: toRow(conversation) }, news: [] };
    const news = newsOf(what, member, conversation);
    const [mine, ...others] = news;
    if (!mine) return { result: { entries: [], row: toRow(conversation) }, news: [] };
    const rows = others.map(({ row }) => row);
    return { result: { entries: mine.entries, row: mine.row, rows }, news };
  };

  return {
    /** Does something in a conversation for a member. The same deed id twice is once. */
    deed: (conversationId: string, what: Deed, member: Member): Promise<DeedDone> =>
      write(() => {
        const done = deed(conversationId, what, member);
        if (what.do !== 'say' || store.ticks.has('answered')) return done;
        store.ticks.set('answered', clock.now());
        return { ...done, isHouse: true };
      }, `member ${member.id}`),
  };
};

export type Reply = ReturnType<typeof createReply>;
