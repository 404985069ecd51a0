import { summary } from '../text';
import type { Entry, OwnAnswer, Page } from './entry';

/** Where a conversation stands in the line. */
export type Group = 'waiting' | 'note' | 'answered' | 'put-by' | 'wrapped-up';

export const groups: readonly Group[] = ['waiting', 'note', 'answered', 'put-by', 'wrapped-up'];

/** A fold of a conversation's entries; times are UTC epoch milliseconds. */
export interface ConversationState {
  name: string;
  email: string;
  phone: string;
  /** Answers to the owner's own questions, in the order in which they were first given. */
  own: OwnAnswer[];
  /** True once the visitor agreed to be kept, where that is asked. */
  hasConsented: boolean;
  /** Set aside by hand, or by nobody. */
  aside: 'wrapped-up' | 'put-by' | null;
  putByUntil: number | null;
  /** When the oldest thing without an answer was said; null when nothing is owed. */
  waitingSince: number | null;
  /** True while everything unanswered was left when the porch light was not lit. */
  isNote: boolean;
  /** True after a put-by time ran out, until the team acts on it. */
  cameBack: boolean;
  isHere: boolean;
  /** When the visitor last came or went; null before they did either. */
  movedAt: number | null;
  page: Page | null;
  /** The time zone of the device that was last written from; empty: not known. */
  zone: string;
  /** In which language the door spoke to them last; empty: not known. */
  language: string;
  firstAt: number;
  /** When anything was last said by either side. */
  lastAt: number;
  lastSeq: number;
  /** Seq of the newest thing that either side said: nobody can have read further. */
  saidSeq: number;
  lastWords: string;
  lastBy: 'visitor' | 'team' | null;
  /** Who of the team said the last thing; null: the visitor did, or nobody yet. */
  lastMemberId: string | null;
  /** Seqs of what the visitor said and the team has not read, at most `UNREAD_KEPT`. */
  unread: number[];
  teamReadSeq: number;
  visitorHasSeq: number;
  visitorReadSeq: number;
  /** Up to which seq answers did not reach them after they had gone, and why; absent: they did, as far as is known. */
  unreached?: { upTo: number; why: string } | null;
}

/** A row says "99+" past this, so there is no need to keep more. */
export const UNREAD_KEPT = 100;

/** Every field, also those that may be absent: one that is added is not forgotten where all are written out. */
export type Whole<Of> = { [Field in keyof Required<Of>]: Of[Field] };

export const emptyConversation: ConversationState = {
  name: '',
  email: '',
  phone: '',
  own: [],
  hasConsented: false,
  aside: null,
  putByUntil: null,
  waitingSince: null,
  isNote: false,
  cameBack: false,
  isHere: false,
  movedAt: null,
  page: null,
  zone: '',
  language: '',
  firstAt: 0,
  lastAt: 0,
  lastSeq: 0,
  saidSeq: 0,
  lastWords: '',
  lastBy: null,
  lastMemberId: null,
  unread: [],
  teamReadSeq: 0,
  visitorHasSeq: 0,
  visitorReadSeq: 0,
  unreached: null,
};

type State = ConversationState;

/** A call is told by a sign that every language has. */
const wordsOf = ({
  text,
  files,
  call,
  callBack,
  subject,
  coming = [],
}: Entry & { kind: 'visitor-said' }): string => {
  if (call || callBack) return ['☎', text].filter(Boolean).join(' ');
  const words = summary(text, files) || (coming[0] ?? '');
  return subject && subject !== words ? summary(`${subject}: ${words}`, []) : words;
};

/** What has reached them up to a seq is not missing any more. */
const unreachedAfter = ({ unreached }: State, upTo: number): State['unreached'] =>
  unreached && unreached.upTo > upTo ? unreached : null;

/** What nobody has to answer changes nothing of what is owed; where it is all that there is, it is done with. */
const setAside = <Of extends State>(state: Of, entry: Entry & { kind: 'visitor-said' }): Of => ({
  ...state,
  aside: state.lastBy === null ? 'wrapped-up' : state.aside,
  page: entry.page ?? state.page,
  zone: entry.zone ?? state.zone,
  language: entry.language ?? state.language,
  lastAt: entry.at,
  saidSeq: entry.seq,
  lastWords: wordsOf(entry),
  lastBy: 'visitor',
  lastMemberId: null,
});

/** The newest that nobody has read, and no more than are kept. */
const withUnread = (unread: readonly number[], seq: number): number[] => {
  const kept = unread.slice(Math.max(0, unread.length + 1 - UNREAD_KEPT));
  kept.push(seq);
  return kept;
};

const visitorSpoke = <Of extends State>(
  state: Of,
  entry: Entry & { kind: 'visitor-said' },
  copy: (state: Of) => Of,
): Of => {
  // Whatever was set aside counts as settled: patience starts anew with this message.
  const owedSince = state.aside === null ? state.waitingSince : null;
  const owedIsNote = owedSince === null ? true : state.isNote;
  const next = copy(state);
  next.aside = null;
  next.putByUntil = null;
  next.cameBack = false;
  next.waitingSince = owedSince ?? entry.at;
  next.isNote = owedIsNote && entry.note;
  next.page = entry.page ?? state.page;
  next.zone = entry.zone ?? state.zone;
  next.language = entry.language ?? state.language;
  next.lastAt = entry.at;
  next.saidSeq = entry.seq;
  next.lastWords = wordsOf(entry);
  next.lastBy = 'visitor';
  next.lastMemberId = null;
  next.unread = withUnread(state.unread, entry.seq);
  return next;
};

const teamSpoke = <Of extends State>(state: Of, entry: Entry & { kind: 'team-said' }): Of => ({
  ...state,
  aside: null,
  putByUntil: null,
  cameBack: false,
  waitingSince: null,
  isNote: false,
  lastAt: entry.at,
  saidSeq: entry.seq,
  lastWords: summary(entry.text, entry.files) || (entry.shelf?.[0]?.name ?? ''),
  lastBy: 'team',
  lastMemberId: entry.memberId,
  unread: [],
  teamReadSeq: Math.max(state.teamReadSeq, entry.seq),
});

/** They changed what they said, or took it back ('' then): the line shows no words that are not theirs any more. */
const visitorChanged = <Of extends State>(state: Of, of: number, text: string): Of => ({
  ...state,
  lastWords: of === state.saidSeq ? summary(text, []) : state.lastWords,
  unread: text === '' ? state.unread.filter((seq) => seq !== of) : state.unread,
});

const returned = <Of extends State>(state: Of, at: number): Of => {
  if (state.aside !== 'put-by') return state;
  const owed = state.waitingSince !== null;
  return {
    ...state,
    aside: null,
    putByUntil: null,
    cameBack: true,
    waitingSince: state.waitingSince ?? at,
    isNote: owed && state.isNote,
  };
};

/** Newer answers replace older ones to the same question; an empty one takes it back. */
const withAnswers = (known: readonly OwnAnswer[], given: readonly OwnAnswer[]): OwnAnswer[] => {
  const byId = new Map([...known, ...given].map((answer) => [answer.id, answer]));
  return [...byId.values()].filter(({ value }) => value !== '');
};

const apply = <Of extends State>(state: Of, entry: Entry, copy: (state: Of) => Of): Of => {
  switch (entry.kind) {
    case 'visitor-said':
      return entry.setAside ? setAside(state, entry) : visitorSpoke(state, entry, copy);
    case 'team-said':
      return teamSpoke(state, entry);
    case 'visitor-changed':
      return visitorChanged(state, entry.of, entry.text);
    case 'visitor-withdrew':
      return visitorChanged(state, entry.of, '');
    case 'details':
      return {
        ...state,
        name: entry.name ?? state.name,
        email: entry.email ?? state.email,
        phone: entry.phone ?? state.phone,
        own: withAnswers(state.own, entry.own ?? []),
      };
    case 'consented':
      return { ...state, hasConsented: true };
    case 'waypoint':
      return { ...state, page: entry.page };
    case 'here':
      return { ...state, isHere: true, movedAt: entry.at };
    case 'gone':
      return { ...state, isHere: false, movedAt: entry.at };
    case 'visitor-has':
      return {
        ...state,
        visitorHasSeq: Math.max(state.visitorHasSeq, entry.upTo),
        unreached: unreachedAfter(state, entry.upTo),
      };
    case 'visitor-read':
      return {
        ...state,
        visitorHasSeq: Math.max(state.visitorHasSeq, entry.upTo),
        visitorReadSeq: Math.max(state.visitorReadSeq, entry.upTo),
        unreached: unreachedAfter(state, entry.upTo),
      };
    case 'team-read':
      return {
        ...state,
        teamReadSeq: Math.max(state.teamReadSeq, entry.upTo),
        unread: state.unread.filter((seq) => seq > entry.upTo),
      };
    case 'wrapped-up':
      return {
        ...state,
        aside: 'wrapped-up',
        putByUntil: null,
        cameBack: false,
        unread: [],
        unreached: null,
      };
    case 'put-by':
      return { ...state, aside: 'put-by', putByUntil: entry.until, cameBack: false, unread: [] };
    case 'taken-back':
      return { ...state, aside: null, putByUntil: null };
    case 'returned':
      return returned(state, entry.at);
    case 'stopped':
      // Nothing is owed to whoever wants nothing.
      return entry.isStopped ? { ...state, waitingSince: null, isNote: false } : state;
    case 'mailed': {
      const upTo = Math.max(0, ...entry.of);
      const unreached =
        entry.failed === undefined ? unreachedAfter(state, upTo) : { upTo, why: entry.failed };
      return { ...state, unreached };
    }
    case 'file-came':
    case 'joined':
    case 'parted':
    case 'receipt':
    case 'rang':
    case 'looked':
    case 'held-back':
    case 'held-decided':
    case 'turned-soon':
    case 'door-sign':
    case 'mail-stopped':
    case 'owed':
    case 'owed-changed':
    case 'owed-done':
    case 'owed-undone':
    case 'bygone':
      return state;
  }
};

/** A step of the fold, with a way to copy such a state. */
export const foldWith = <Of extends ConversationState>(
  state: Of,
  entry: Entry,
  copy: (state: Of) => Of,
): Of => {
  if (entry.seq <= state.lastSeq) return state;
  const next = apply(state, entry, copy);
  // What `apply` has made is nobody else's yet: a copy of it for two fields is felt in every message.
  const own = next === state ? copy(state) : next;
  own.firstAt = state.firstAt || entry.at;
  own.lastSeq = entry.seq;
  return own;
};

/**
 * One step of the fold: a conversation and what happened next → the conversation after it.
 * Pure; an entry that is not newer than the state is ignored, so applying twice is applying once.
 */
export const fold = <Of extends ConversationState>(state: Of, entry: Entry): Of =>
  foldWith(state, entry, (one) => ({ ...one }));

/** Folds a whole roll, in order of `seq`; no entries → `emptyConversation`. */
export const foldAll = (entries: readonly Entry[]): ConversationState =>
  entries.reduce(fold, emptyConversation);

/** In which group of the line a conversation stands. */
export const groupOf = (state: ConversationState): Group => {
  if (state.aside) return state.aside;
  if (state.waitingSince === null) return 'answered';
  return state.isNote ? 'note' : 'waiting';
};
