import type { FollowUpsPage } from '@porch/contract/follow-ups';
import { en } from '@porch/core/alert-mail';
import { callInWords } from '@porch/core/calling';
import { type Entry, SCREEN, type ThreadState } from '@porch/core/conversation';
import { toCalendar } from '@porch/core/feeds';
import { fromLineMark, NOTE_GRACE_MS, type OpenTime, toLineMark } from '@porch/core/patience';
import { askedId, type FollowUp, isAnswerOwed, type Owing } from '@porch/core/promises';
import type { Clock } from '../clock';
import { calledOf, lastDoorOf } from '../doors/called';
import type { Change, WriteNow } from '../inbox/batch';
import type { Persons } from '../inbox/persons';
import type { Follow, Record, Recording } from '../inbox/record';
import { Refused } from '../refused';
import { hashSecret, newId, newSecret } from '../security/tokens';
import { type ConversationRecord, type Store, toRow } from '../store';

const PAGE = 50;
const MINUTE_MS = 60_000;
const MISSED_OVER_MS = 30 * 24 * 60 * MINUTE_MS;
/** As many as a calendar program is given. */
const IN_FEED_MOST = 500;

/** What a job that reminds of a follow-up carries. */
export interface Reminding {
  followUpId: string;
  at: number;
}

const threadIdsOf = ({ threads }: ConversationRecord): string[] =>
  threads.map(({ threadId }) => threadId);

const oweByItself = (why: Exclude<Owing, 'hand'>, dueAt: number, id = newId()): Recording => ({
  id,
  happening: {
    kind: 'owed',
    memberId: null,
    why,
    what: '',
    dueAt,
    remindAt: dueAt,
    whose: null,
  },
});

/** What is owed by itself, and when it is done by itself. Everything here happens in the transaction of its cause. */
export const createOwing = (services: {
  store: Store;
  clock: Clock;
  opening: (doorId: string) => OpenTime;
  graceMs: () => number;
  /** Whether what somebody gone has not read would be brought to them. */
  isReachable: (thread: ThreadState) => boolean;
}) => {
  const { store, clock, opening, graceMs, isReachable } = services;

  const byItself = (conversation: ConversationRecord): FollowUp[] =>
    store.followUps.openIn(threadIdsOf(conversation)).filter(({ why }) => isAnswerOwed(why));

  const finish = (owed: readonly FollowUp[], memberId: string | null): Recording[] =>
    owed.map(({ id }) => ({ id: newId(), happening: { kind: 'owed-done', of: id, memberId } }));

  const done = (conversation: ConversationRecord, memberId: string | null): Recording[] =>
    finish(byItself(conversation), memberId);

  /** An answer has arrived: what was owed by itself is done, but for a mail of theirs that nobody has read. */
  const doneByArriving = (conversation: ConversationRecord): Recording[] =>
    finish(
      byItself(conversation).filter(({ why }) => why !== 'held'),
      null,
    );

  /** A grace from now on, in open time. */
  const graceFrom = (conversation: ConversationRecord): number => {
    const now = clock.now();
    const open = opening(lastDoorOf(store, conversation)?.id ?? '');
    return open.afterOpen(now, graceMs()) ?? now + NOTE_GRACE_MS;
  };

  /** Somebody went, and nobody has answered: it is owed where they can be reached, and missed where not. */
  const left = (conversation: ConversationRecord): Recording[] => {
    const { waitingSince, isHere, isNote, email, phone, aside } = conversation.state;
    if (waitingSince === null || isHere || isNote || aside) return [];
    if (byItself(conversation).length > 0) return [];
    if (email || phone) return [oweByItself('left', graceFrom(conversation))];
    store.followUps.miss(conversation.id, clock.now());
    return [];
  };

  /** What is put by is owed when it comes back. */
  const putBy = (conversation: ConversationRecord, memberId: string, until: number): Recording[] =>
    byItself(conversation).map(({ id, what, whose }) => ({
      id: newId(),
      happening: {
        kind: 'owed-changed',
        of: id,
        memberId,
        what,
        whose,
        dueAt: until,
        remindAt: null,
      },
    }));

  /** A mail came and is not on the roll: to say whose it is, or to answer it otherwise, is owed. */
  const heldBack = (
    conversation: ConversationRecord,
    { id, says, isVisitors }: Entry & { kind: 'held-back' },
  ): Recording[] => {
    const dueAt = graceFrom(conversation);
    if (says !== undefined) return [oweByItself('asked', dueAt, askedId(id))];
    return isVisitors && byItself(conversation).length === 0 ? [oweByItself('held', dueAt)] : [];
  };

  /** An answer on the screen of somebody who has gone, and whom nothing else would bring it to: it is still owed. */
  const hasNoWay = (
    { threads }: ConversationRecord,
    { way, threadId }: Entry & { kind: 'team-said' },
  ): boolean => {
    const thread = threads.find((one) => one.threadId === threadId);
    if (way !== SCREEN || !thread || thread.isHere) return false;
    return Boolean(thread.email || thread.phone) && !isReachable(thread);
  };

  /** Whether nobody waits in it, and all that was said to them is known to have reached them. */
  const hasArrived = ({ state }: ConversationRecord): boolean =>
    state.waitingSince === null && state.aside === null && !state.unreached;

  /** They came back and have what had not reached them. */
  const arrived = (conversation: ConversationRecord, { upTo }: { upTo: number }): Recording[] =>
    hasArrived(conversation) && upTo >= conversation.state.saidSeq
      ? doneByArriving(conversation)
      : [];

  const followed = (conversation: ConversationRecord, entry: Entry): Recording[] => {
    switch (entry.kind) {
      case 'visitor-said': {
        const { callBack } = entry;
        if (callBack) {
          const asked = callBack.at ?? graceFrom(conversation);
          return [oweByItself('call-back', Math.max(asked, clock.now()))];
        }
        const { dueAt, state } = conversation;
        const isOwed = !entry.setAside && entry.note && state.isNote && dueAt !== null;
        return isOwed && byItself(conversation).length === 0 ? [oweByItself('note', dueAt)] : [];
      }
      case 'here':
        store.followUps.unmiss(conversation.id);
        return [];
      case 'gone':
        return left(conversation);
      case 'mailed':
        if (entry.failed === undefined)
          return hasArrived(conversation) ? doneByArriving(conversation) : [];
        return byItself(conversation).length > 0
          ? []
          : [oweByItself('bounced', graceFrom(conversation))];
      case 'held-back':
        return heldBack(conversation, entry);
      case 'team-said':
        return hasNoWay(conversation, entry) ? [] : done(conversation, entry.memberId);
      case 'visitor-has':
      case 'visitor-read':
        return arrived(conversation, entry);
      case 'wrapped-up':
        return done(conversation, entry.memberId);
      case 'put-by':
        return putBy(conversation, entry.memberId, entry.until);
      default:
        return [];
    }
  };

  const follow: Follow = (_was, now, entries) => entries.flatMap((entry) => followed(now, entry));

  /** Keeps what is owed as the rolls say it, and lets it ring in its time. */
  const keep = (entries: readonly Entry[]): void => {
    for (const entry of entries) {
      const followUp = store.followUps.fold(entry);
      if (followUp?.remindAt && followUp.doneAt === null) {
        const { id, remindAt } = followUp;
        const load: Reminding = { followUpId: id, at: remindAt };
        const job = { key: `remind ${id}`, kind: 'remind', load, notBefore: remindAt };
        store.jobs.schedule(job, clock.now());
      }
    }
  };

  return { follow, keep };
};

/** By this it is kept that notes of earlier programs are on the list. */
const NOTES_OWED = 'notes-owed';

/** Brings what was left as a note before there was a list of what is owed onto it: once, after such a program. */
export const oweOldNotes = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  writeNow: WriteNow;
}): void => {
  const { store, clock, record, writeNow } = services;
  if (store.ticks.has(NOTES_OWED)) return;
  writeNow(() => {
    store.ticks.set(NOTES_OWED, clock.now());
    const news = store.conversations.idsIn('note').flatMap((id) => {
      const note = store.conversations.byId(id);
      if (!note || store.followUps.openIn(threadIdsOf(note)).length > 0) return [];
      return [record.add(note, null, [oweByItself('note', note.dueAt ?? clock.now())])];
    });
    return { result: null, news };
  });
};

/** The list of what is owed, and the calendar that other programs read it by. */
export const createFollowUps = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  persons: Persons;
}) => {
  const { store, clock, change, persons } = services;

  const page = (found: readonly FollowUp[], placeOf: (one: FollowUp) => number): FollowUpsPage => {
    const now = clock.now();
    const shown = found.slice(0, PAGE);
    const last = shown.at(-1);
    const next =
      found.length > PAGE && last ? toLineMark({ place: placeOf(last), id: last.id }) : null;
    return {
      owed: shown.flatMap((followUp) => {
        const conversation = persons.standing(followUp.conversationId);
        return conversation ? [{ followUp, row: toRow(conversation) }] : [];
      }),
      next,
      late: store.followUps.late(now),
      missed: store.followUps.missedSince(now - MISSED_OVER_MS),
      now,
    };
  };

  const keyOf = (after: string | null) => {
    const key = after === null ? null : fromLineMark(after);
    if (after !== null && !key) throw new Refused('bad-request', { field: 'after' });
    return key;
  };

  const todoOf = (origin: string) => (followUp: FollowUp) => {
    const { id, what, madeAt, dueAt, remindAt } = followUp;
    const conversation = persons.standing(followUp.conversationId);
    const who = conversation ? callInWords(calledOf(store, conversation), en.called) : '';
    return {
      id: `${id}@${new URL(origin).hostname}`,
      title: [who, what || conversation?.state.lastWords].filter(Boolean).join(': '),
      more: '',
      url: `${origin}/line/${conversation?.id ?? ''}`,
      madeAt,
      dueAt,
      remindAt,
    };
  };

  return {
    due: (after: string | null): FollowUpsPage =>
      page(store.followUps.due(keyOf(after), PAGE + 1), ({ dueAt }) => dueAt),
    done: (after: string | null): FollowUpsPage =>
      page(store.followUps.done(keyOf(after), PAGE + 1), ({ doneAt }) => doneAt ?? 0),
    late: (): number => store.followUps.late(clock.now()),
    feedMadeAt: (memberId: string): number | null => store.feeds.madeAt(memberId),
    /** Makes a secret address; the one before it opens nothing any more. */
    renewFeed: (memberId: string, origin: string): string => {
      const secret = newSecret();
      change(() => store.feeds.renew(memberId, hashSecret(secret), clock.now()));
      return `${origin}/feeds/${secret}.ics`;
    },
    dropFeed: (memberId: string): void => change(() => store.feeds.drop(memberId)),
    /** What a calendar program reads under a secret address: what is open and somebody's, or nobody's; null: nothing. */
    calendar: (secret: string, origin: string): string | null => {
      const memberId = store.feeds.memberOf(hashSecret(secret));
      const member = memberId ? store.members.byId(memberId) : null;
      if (!member) return null;
      const mine = store.followUps
        .due(null, IN_FEED_MOST)
        .filter(({ whose }) => whose === null || whose === memberId);
      return toCalendar(store.business.read()?.name ?? '', mine.map(todoOf(origin)), clock.now());
    },
    tidy: (): void => store.followUps.dropMissedBefore(clock.now() - 2 * MISSED_OVER_MS),
  };
};

export type FollowUps = ReturnType<typeof createFollowUps>;
