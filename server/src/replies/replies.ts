import type { QuickReplies, QuickReply, QuickReplyChange } from '@porch/contract/replies';
import {
  cleanCode,
  REPLIES_MOST,
  REPLY_GROUP_LONGEST,
  REPLY_TITLE_LONGEST,
} from '@porch/core/replies';
import { cleanLine, cleanMessage, MESSAGE_LONGEST } from '@porch/core/text';
import type { Clock } from '../clock';
import { refuseStrangePictures } from '../files/strange';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import { type QuickReplyRecord, type Store, toMention } from '../store';

/** What is kept of what was typed. */
type Kept = Pick<QuickReplyRecord, 'memberId' | 'code' | 'title' | 'text' | 'group' | 'language'>;

const keptFields = ['memberId', 'code', 'title', 'text', 'group', 'language'] as const;

/** Cleaned, and refused where it is too much or nothing. */
const toKept = (
  typed: Omit<QuickReplyChange, 'revision' | 'fileIds' | 'shelfIds'>,
  memberId: string,
): Kept => {
  const text = cleanMessage(typed.text);
  if (!text) throw new Refused('text-empty', { field: 'text' });
  if (text.length > MESSAGE_LONGEST) {
    throw new Refused('text-too-long', { field: 'text', limit: MESSAGE_LONGEST });
  }
  const title = cleanLine(typed.title);
  if (!title) throw new Refused('text-empty', { field: 'title' });
  const group = cleanLine(typed.group);
  for (const [field, words, limit] of [
    ['title', title, REPLY_TITLE_LONGEST],
    ['group', group, REPLY_GROUP_LONGEST],
  ] as const) {
    if (words.length > limit) throw new Refused('text-too-long', { field, limit });
  }
  return {
    memberId: typed.isOwn ? memberId : null,
    code: cleanCode(typed.code),
    title,
    text,
    group,
    language: typed.language,
  };
};

/** The stored answers of the team, and of each of its people. */
export const createQuickReplies = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  /** Brings up to date how often each was used. */
  catchUp: () => void;
}) => {
  const { store, clock, change, catchUp } = services;
  // What devices have is asked about by this mark; after a start each reads all once.
  const life = newId();
  let changes = 0;

  const mark = (): string => `${life}-${changes}`;

  const isFor = ({ memberId: whose }: QuickReplyRecord, memberId: string): boolean =>
    whose === null || whose === memberId;

  const mine = (id: string, memberId: string): QuickReplyRecord | null => {
    const known = store.quickReplies.byId(id);
    if (known && !isFor(known, memberId)) throw new Refused('not-found');
    return known;
  };

  /** Of whoever sees both, a code is of one only. */
  const refuseTaken = (id: string, { memberId, code }: Kept, asks: string): void => {
    for (const whose of new Set([memberId, null, asks])) {
      const other = store.quickReplies.byCode(whose, code);
      if (code && other && other.id !== id) {
        throw new Refused('short-code-taken', { field: 'code', what: other.title });
      }
    }
  };

  const shower = (): ((reply: QuickReplyRecord) => QuickReply) => {
    const files = store.quickReplies.files();
    const shelf = store.quickReplies.shelf();
    return (reply) => ({
      ...reply,
      shelf: shelf.get(reply.id) ?? [],
      pictures: (files.get(reply.id) ?? []).flatMap((id) => {
        const file = store.files.byId(id);
        return file ? [toMention(file)] : [];
      }),
    });
  };

  const shown = (id: string): QuickReply => {
    const reply = store.quickReplies.byId(id);
    if (!reply) throw new Refused('not-found');
    return shower()(reply);
  };

  const write = (id: string, kept: Kept, revision: number): void => {
    store.quickReplies.write({ id, ...kept, revision, changedAt: clock.now() });
    changes += 1;
  };

  /** Puts one in place; call in a transaction. Whether it is another by it. */
  const put = (id: string, typed: QuickReplyChange, memberId: string): boolean => {
    const known = mine(id, memberId);
    const before = store.quickReplies.files().get(id) ?? [];
    const shelfBefore = (store.quickReplies.shelf().get(id) ?? []).map((one) => one.id);
    const kept = toKept(typed, memberId);
    const isSame =
      known !== null &&
      keptFields.every((field) => known[field] === kept[field]) &&
      before.join() === typed.fileIds.join() &&
      shelfBefore.join() === typed.shelfIds.join();
    // Said twice, or by two in the same words: once.
    if (isSame) return false;
    if (known === null && typed.revision > 0) throw new Refused('not-found');
    if (known !== null && known.revision !== typed.revision) throw new Refused('changed-meanwhile');
    if (known === null && store.quickReplies.count() >= REPLIES_MOST) {
      throw new Refused('too-many-of-these', { limit: REPLIES_MOST });
    }
    refuseTaken(id, kept, memberId);
    refuseStrangePictures(store, typed.fileIds, (one) => before.includes(one), 'fileIds');
    for (const one of typed.shelfIds) {
      if (!store.shelf.byId(one)) throw new Refused('shelf-gone', { field: 'shelfIds' });
    }
    write(id, kept, typed.revision + 1);
    store.quickReplies.setFiles(id, typed.fileIds);
    store.quickReplies.setShelf(id, typed.shelfIds);
    return true;
  };

  return {
    /** All that somebody may use; nothing where they have it by that mark. */
    of: (memberId: string, known: string): QuickReplies => {
      if (known === mark()) return { mark: known, replies: null };
      catchUp();
      const theirs = store.quickReplies.all().filter((one) => isFor(one, memberId));
      return { mark: mark(), replies: theirs.map(shower()) };
    },
    put: (id: string, typed: QuickReplyChange, memberId: string): QuickReply =>
      change(() => {
        put(id, typed, memberId);
        return shown(id);
      }),
    drop: (id: string, memberId: string): void =>
      change(() => {
        if (!mine(id, memberId)) return;
        store.quickReplies.drop(id);
        store.answersGiven.forgetPicks('reply', id);
        changes += 1;
      }),
    /** Another text when any of them is another. */
    mark,
    /** Something that goes with some of them is another. */
    changed: (): void => {
      changes += 1;
    },
    putNow: put,
  };
};

export type KeptReplies = ReturnType<typeof createQuickReplies>;
