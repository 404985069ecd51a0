import type { Entry, OwnAnswer } from './entry';
import {
  type ConversationState,
  emptyConversation,
  foldWith,
  UNREAD_KEPT,
  type Whole,
} from './reducer';

/** So many writers can be one person; more are nobody's ways of reaching a business. */
export const THREADS_MOST = 20;

/** Another number when the fold gives something else for the same entries: all are folded anew then. */
export const FOLD_VERSION = 4;

/** What an answer in another thread of the same conversation means for this one. */
interface AnsweredElsewhere {
  seq: number;
  /** When the first thing was said here after it; null: nothing was. */
  owedSince: number | null;
  isNote: boolean;
}

/**
 * A fold of what concerns one writer at one door: what they said, what was said to them, and what was done with
 * the whole conversation while they stood in it. It is the same whatever it stands together with now.
 */
export interface ThreadState extends ConversationState {
  threadId: string;
  doorId: string;
  /** Seqs of the entries that each of these comes from; 0: from none. */
  from: Record<
    'name' | 'email' | 'phone' | 'own' | 'page' | 'zone' | 'language' | 'place' | 'owed' | 'aside',
    number
  >;
  /** When they said something last, as their network says; null: they never did. UTC epoch milliseconds. */
  heardAt: number | null;
  /** They want nothing more by this door. */
  isStopped: boolean;
  /** They came to others by a code, which anybody may have read, and nobody has answered them since. */
  isByCode?: boolean;
  /** To which address they want no more mails; '' where they have not said so. */
  mailStopped: string;
  /** By the id of the thread that was answered in. */
  elsewhere: Record<string, AnsweredElsewhere>;
}

export const emptyThread = (threadId: string, doorId: string): ThreadState => ({
  ...emptyConversation,
  threadId,
  doorId,
  from: {
    name: 0,
    email: 0,
    phone: 0,
    own: 0,
    page: 0,
    zone: 0,
    language: 0,
    place: 0,
    owed: 0,
    aside: 0,
  },
  heardAt: null,
  isStopped: false,
  mailStopped: '',
  elsewhere: {},
});

/**
 * What a thread comes to by itself, without what is kept of it beside. Written out, since spreading so many fields takes
 * longer than all the rest of a fold.
 */
const alone = (thread: ThreadState): Whole<ConversationState> => ({
  name: thread.name,
  email: thread.email,
  phone: thread.phone,
  own: thread.own,
  hasConsented: thread.hasConsented,
  aside: thread.aside,
  putByUntil: thread.putByUntil,
  waitingSince: thread.waitingSince,
  isNote: thread.isNote,
  cameBack: thread.cameBack,
  isHere: thread.isHere,
  movedAt: thread.movedAt,
  page: thread.page,
  zone: thread.zone,
  language: thread.language,
  firstAt: thread.firstAt,
  lastAt: thread.lastAt,
  lastSeq: thread.lastSeq,
  saidSeq: thread.saidSeq,
  lastWords: thread.lastWords,
  lastBy: thread.lastBy,
  lastMemberId: thread.lastMemberId,
  unread: thread.unread,
  teamReadSeq: thread.teamReadSeq,
  visitorHasSeq: thread.visitorHasSeq,
  visitorReadSeq: thread.visitorReadSeq,
  unreached: thread.unreached,
});

const besideOf = (thread: ThreadState): Whole<Omit<ThreadState, keyof ConversationState>> => ({
  threadId: thread.threadId,
  doorId: thread.doorId,
  from: thread.from,
  heardAt: thread.heardAt,
  isStopped: thread.isStopped,
  isByCode: thread.isByCode,
  mailStopped: thread.mailStopped,
  elsewhere: thread.elsewhere,
});

const copyOf = (thread: ThreadState): ThreadState => Object.assign(alone(thread), besideOf(thread));

type Field = keyof ThreadState['from'];

/** What of a thread an entry decides; a deed that changes nothing decides nothing. */
const fieldsOf = (thread: ThreadState, entry: Entry): readonly Field[] => {
  switch (entry.kind) {
    case 'visitor-said': {
      const fields: Field[] = ['place'];
      if (!entry.setAside) fields.push('owed');
      else if (thread.lastBy === null) fields.push('aside');
      if (entry.page) fields.push('page');
      if (entry.zone) fields.push('zone');
      if (entry.language) fields.push('language');
      return fields;
    }
    case 'details':
      return (['name', 'email', 'phone', 'own'] as const).filter(
        (field) => entry[field] !== undefined,
      );
    case 'waypoint':
      return ['page'];
    case 'team-said':
      return ['place'];
    case 'wrapped-up':
    case 'put-by':
      return ['place', 'aside'];
    case 'taken-back':
      return thread.aside ? ['place'] : [];
    case 'returned':
      return thread.aside === 'put-by' ? ['place', 'owed'] : [];
    default:
      return [];
  }
};

const fromAfter = (
  from: ThreadState['from'],
  fields: readonly Field[],
  seq: number,
): ThreadState['from'] => {
  if (fields.length === 0) return from;
  const next = { ...from };
  for (const field of fields) next[field] = seq;
  return next;
};

/** What is owed from now on is owed also after an answer that was given elsewhere before it. */
const owedAfter = (
  elsewhere: ThreadState['elsewhere'],
  at: number,
  isNote: boolean,
): ThreadState['elsewhere'] => {
  const next = { ...elsewhere };
  for (const [threadId, answered] of Object.entries(elsewhere)) {
    next[threadId] =
      answered.owedSince === null
        ? { ...answered, owedSince: at, isNote }
        : { ...answered, isNote: answered.isNote && isNote };
  }
  return next;
};

const heardElsewhere = (thread: ThreadState, entry: Entry, threadId: string): ThreadState => {
  if (entry.kind !== 'team-said') return thread;
  if (entry.seq <= (thread.elsewhere[threadId]?.seq ?? 0)) return thread;
  const answered = { seq: entry.seq, owedSince: null, isNote: false };
  return { ...thread, elsewhere: { ...thread.elsewhere, [threadId]: answered } };
};

/** What came late was said before what was heard already. */
const heardAfter = ({ heardAt }: ThreadState, entry: Entry): number | null =>
  entry.kind === 'visitor-said' ? Math.max(heardAt ?? 0, entry.saidAt ?? entry.at) : heardAt;

/**
 * One step of a thread's fold. Give it, in order, every entry of the conversations in which the thread has
 * stood while it stood there: those of other threads only say that the person was answered.
 */
export const foldThread = (thread: ThreadState, entry: Entry): ThreadState => {
  if (entry.threadId !== null && entry.threadId !== thread.threadId) {
    return heardElsewhere(thread, entry, entry.threadId);
  }
  if (entry.kind === 'joined' && entry.byCode && entry.threadIds.includes(thread.threadId)) {
    return { ...thread, isByCode: true };
  }
  const next = foldWith<ThreadState>(thread, entry, copyOf);
  if (next === thread) return thread;
  if (entry.kind === 'team-said' && thread.isByCode) next.isByCode = false;
  const fields = fieldsOf(thread, entry);
  const isNote = entry.kind === 'visitor-said' && entry.note;
  // The fold has made it: it is nobody else's yet.
  next.heardAt = heardAfter(thread, entry);
  if (entry.kind === 'stopped') next.isStopped = entry.isStopped;
  if (entry.kind === 'mail-stopped') next.mailStopped = entry.address;
  next.from = fromAfter(thread.from, fields, entry.seq);
  if (fields.includes('owed')) next.elsewhere = owedAfter(thread.elsewhere, entry.at, isNote);
  return next;
};

/** Since when something is owed in a thread, the newest answers to the person being these. */
const owedSince = (
  { waitingSince, isNote, cameBack, from }: ThreadState,
  answers: readonly AnsweredElsewhere[],
  answeredSeq: number,
): Pick<ThreadState, 'waitingSince' | 'isNote' | 'cameBack'> => {
  if (waitingSince === null || from.owed < answeredSeq) {
    return { waitingSince: null, isNote: false, cameBack: false };
  }
  const since = answers.reduce<Pick<AnsweredElsewhere, 'owedSince' | 'isNote'>>(
    (newest, one) => ((one.owedSince ?? 0) > (newest.owedSince ?? 0) ? one : newest),
    { owedSince: waitingSince, isNote },
  );
  return { waitingSince: since.owedSince, isNote: since.isNote, cameBack };
};

/** What a thread comes to beside others: whoever was answered in one of them was answered. */
const beside = (thread: ThreadState, others: readonly ThreadState[]): ThreadState => {
  const answers = others.flatMap(({ threadId }) => thread.elsewhere[threadId] ?? []);
  const answeredSeq = Math.max(0, ...answers.map(({ seq }) => seq));
  const isAside = thread.from.aside > answeredSeq;
  return {
    ...thread,
    ...owedSince(thread, answers, answeredSeq),
    aside: isAside ? thread.aside : null,
    putByUntil: isAside ? thread.putByUntil : null,
    unread: thread.unread.filter((seq) => seq > answeredSeq),
  };
};

const newestBy = (
  threads: readonly ThreadState[],
  seqOf: (thread: ThreadState) => number,
): ThreadState =>
  threads.reduce((newest, thread) => (seqOf(thread) > seqOf(newest) ? thread : newest));

type Stand = Pick<
  ConversationState,
  'aside' | 'putByUntil' | 'waitingSince' | 'isNote' | 'cameBack'
>;

/** Where several threads stand together: whatever is owed comes first, then what was promised for later. */
const standOf = (threads: readonly ThreadState[]): Stand => {
  const owed = threads.filter(({ aside, waitingSince }) => !aside && waitingSince !== null);
  if (owed.length > 0) {
    return {
      aside: null,
      putByUntil: null,
      waitingSince: Math.min(...owed.map(({ waitingSince }) => waitingSince ?? 0)),
      isNote: owed.every(({ isNote }) => isNote),
      cameBack: owed.some(({ cameBack }) => cameBack),
    };
  }
  const putBy = threads.filter(({ aside }) => aside === 'put-by');
  const { aside, putByUntil, waitingSince, isNote, cameBack } =
    putBy.length > 0
      ? putBy.reduce((a, b) => ((b.putByUntil ?? 0) < (a.putByUntil ?? 0) ? b : a))
      : newestBy(threads, ({ from }) => from.place);
  return { aside, putByUntil, waitingSince, isNote, cameBack };
};

const ownAnswersOf = (threads: readonly ThreadState[]): OwnAnswer[] => {
  const inOrder = [...threads].sort((a, b) => a.from.own - b.from.own);
  return [...new Map(inOrder.flatMap(({ own }) => own).map((one) => [one.id, one])).values()];
};

/** The latest that was said of something, in whichever thread; one that was taken back counts as said. */
const latest = <Field extends 'name' | 'email' | 'phone' | 'page' | 'zone' | 'language'>(
  threads: readonly ThreadState[],
  field: Field,
): ConversationState[Field] => newestBy(threads, ({ from }) => from[field])[field];

const together = (each: readonly ThreadState[]): ConversationState => {
  const threads = each.map((thread) => beside(thread, each));
  const spoken = newestBy(threads, ({ saidSeq }) => saidSeq);
  const firsts = threads.flatMap(({ firstAt }) => firstAt || []);
  const moved = threads.flatMap(({ movedAt }) => movedAt ?? []);
  return {
    ...alone(spoken),
    ...standOf(threads),
    name: latest(threads, 'name'),
    email: latest(threads, 'email'),
    phone: latest(threads, 'phone'),
    page: latest(threads, 'page'),
    zone: latest(threads, 'zone'),
    language: latest(threads, 'language'),
    own: ownAnswersOf(threads),
    hasConsented: threads.some(({ hasConsented }) => hasConsented),
    isHere: threads.some(({ isHere }) => isHere),
    movedAt: moved.length > 0 ? Math.max(...moved) : null,
    firstAt: firsts.length > 0 ? Math.min(...firsts) : 0,
    lastAt: Math.max(...threads.map(({ lastAt }) => lastAt)),
    lastSeq: Math.max(...threads.map(({ lastSeq }) => lastSeq)),
    unread: threads
      .flatMap(({ unread }) => unread)
      .sort((a, b) => a - b)
      .slice(-UNREAD_KEPT),
    teamReadSeq: Math.max(...threads.map(({ teamReadSeq }) => teamReadSeq)),
    unreached: newestBy(threads, ({ unreached }) => unreached?.upTo ?? 0).unreached,
  };
};

/**
 * Several threads as the one conversation that they are now; of one it is that one's own fold. None →
 * `emptyConversation`. Nothing is lost by it: parting them again gives what each was.
 */
export const combine = (threads: readonly ThreadState[]): ConversationState => {
  const [only] = threads;
  if (!only) return emptyConversation;
  return threads.length === 1 ? alone(only) : together(threads);
};

/** The thread that was written in last: where an answer goes unless somebody says otherwise. */
export const threadWrittenLast = (threads: readonly ThreadState[]): ThreadState | null =>
  threads.length === 0 ? null : newestBy(threads, ({ saidSeq }) => saidSeq);

/** Whom an answer is for where nobody says so: whoever wrote last; null where that may be somebody else. */
export const threadMeant = (threads: readonly ThreadState[]): ThreadState | null => {
  const last = threadWrittenLast(threads);
  return threads.length > 1 && last?.isByCode ? null : last;
};
