import type { Counts, Row } from '@porch/contract/entries';
import {
  type ConversationState,
  combine,
  emptyThread,
  FOLD_VERSION,
  type Group,
  groupOf,
  groups,
  type ThreadState,
  threadWrittenLast,
  type View,
  viewsOf,
} from '@porch/core/conversation';
import { openingWhile } from '@porch/core/hours/opening';
import { isSameAddress } from '@porch/core/mail';
import { dueAt, type LineKey, placeInLine } from '@porch/core/patience';
import { createBehind } from './behind';
import type { Db } from './db';
import { createMemo } from './memo';

interface Placed {
  group: Group;
  place: number;
}

/** When an answer to a conversation is due, UTC epoch milliseconds; null: nothing is owed. */
export type DueOf = (state: ConversationState, last: ThreadState | null) => number | null;

const always = openingWhile(null);

export interface ConversationRecord {
  id: string;
  /** What its threads come to together. */
  state: ConversationState;
  /** Who stands in it; nobody, while its threads stand in another one. */
  threads: readonly ThreadState[];
  /** By which version of the fold; see `FOLD_VERSION`. */
  fold: number;
  /** Where it stands in the line as it is kept; null: nowhere. */
  placed: Placed | null;
  /** When an answer to it is due; null: nothing is owed. */
  dueAt: number | null;
}

interface Stored {
  id: string;
  threads: string;
  fold: number;
  lineGroup: Group | null;
  place: number | null;
}

const columns = 'c.id, c.threads, c.fold, c.line_group AS lineGroup, c.place';

/** A conversation with somebody's first words still to come; it has the name of its first thread. */
export const newConversation = (threadId: string, doorId: string): ConversationRecord => {
  const threads = [emptyThread(threadId, doorId)];
  return {
    id: threadId,
    threads,
    state: combine(threads),
    fold: FOLD_VERSION,
    placed: null,
    dueAt: null,
  };
};

/** The conversation with these threads in it, and no others. */
export const withThreads = (
  conversation: ConversationRecord,
  threads: readonly ThreadState[],
): ConversationRecord => ({
  ...conversation,
  threads,
  state: combine(threads),
  fold: FOLD_VERSION,
});

const newestFirst = (threads: readonly ThreadState[]): readonly ThreadState[] =>
  threads.length < 2 ? threads : [...threads].sort((a, b) => b.saidSeq - a.saidSeq);

const doorWrittenLast = (threads: readonly ThreadState[]): string =>
  threadWrittenLast(threads)?.doorId ?? '';

/** The row that crosses the wire. */
export const toRow = ({ id, state, threads, dueAt: due }: ConversationRecord): Row => ({
  id,
  doorId: doorWrittenLast(threads),
  group: groupOf(state),
  place: placeInLine(state, due),
  dueAt: due,
  state,
  threads: newestFirst(threads).map((thread) => ({
    id: thread.threadId,
    doorId: thread.doorId,
    name: thread.name,
    email: thread.email,
    isMailStopped: Boolean(thread.mailStopped) && isSameAddress(thread.email, thread.mailStopped),
    lastAt: thread.lastAt,
    // What an earlier fold did not keep is not known until it is folded anew.
    heardAt: thread.heardAt ?? null,
    isStopped: thread.isStopped ?? false,
    isByCode: thread.isByCode ?? false,
    isHere: thread.isHere,
    movedAt: thread.movedAt,
    visitorHasSeq: thread.visitorHasSeq,
    visitorReadSeq: thread.visitorReadSeq,
  })),
});

const placeOf = ({ threads, state, dueAt: due }: ConversationRecord): Placed | null =>
  threads.length === 0 ? null : { group: groupOf(state), place: placeInLine(state, due) };

const isSame = (one: Placed | null | undefined, other: Placed | null): boolean =>
  one?.group === other?.group && one?.place === other?.place;

/** Whether everything of it that is looked up by is as it was: only the fold of its threads has gone on. */
const isFoundAlike = (
  was: ConversationRecord,
  is: ConversationRecord,
  placed: Placed | null,
): boolean =>
  isSame(was.placed, placed) &&
  isSame(is.placed, placed) &&
  was.fold === is.fold &&
  was.state.isHere === is.state.isHere &&
  was.threads.length === is.threads.length &&
  was.threads.every(({ threadId }, index) => threadId === is.threads[index]?.threadId);

/** Which views show a conversation. */
export type ViewsOf = (conversation: ConversationRecord) => readonly View[];

/** Enough for all that are being talked in. */
const KEPT_MOST = 2_000;

export const conversationsTable = (db: Db, inViews: ViewsOf = ({ state }) => viewsOf(state)) => {
  const known = createMemo<ConversationRecord>(KEPT_MOST);
  const behind = createBehind<ConversationRecord>();
  const write = db.prepare(
    `INSERT INTO conversations
     VALUES (@id, @group, @place, @isHere, @fold, @threads)
     ON CONFLICT DO UPDATE SET line_group = @group, place = @place, is_here = @isHere,
       fold = @fold, threads = @threads`,
  );
  // Nothing that is indexed: what is indexed is written anew by SQLite also where it stays the same.
  const writeThreads = db.prepare('UPDATE conversations SET threads = ? WHERE id = ?');
  const moveInLine = db.prepare(
    `UPDATE line_places SET line_group = @group, place = @place
     WHERE view = @view AND line_group = @wasGroup AND place = @wasPlace AND conversation_id = @id`,
  );
  const addToLine = db.prepare('INSERT INTO line_places VALUES (@view, @group, @place, @id)');
  const takeOutOfLine = db.prepare(
    `DELETE FROM line_places
     WHERE view = @view AND line_group = @wasGroup AND place = @wasPlace AND conversation_id = @id`,
  );
  const byId = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM conversations c WHERE c.id = ?`,
  );
  const byIds = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM conversations c WHERE c.id IN (SELECT value FROM json_each(?))`,
  );
  const page = db.prepare<
    { view: View; group: Group; place: number; id: string; most: number },
    Stored
  >(
    `SELECT ${columns} FROM line_places l JOIN conversations c ON c.id = l.conversation_id
     WHERE l.view = @view AND l.line_group = @group
       AND (l.place, l.conversation_id) > (@place, @id)
     ORDER BY l.place, l.conversation_id LIMIT @most`,
  );
  const inGroup = db.prepare<[Group], { id: string }>(
    "SELECT conversation_id AS id FROM line_places WHERE view = 'all' AND line_group = ?",
  );
  const here = db.prepare<[], Stored>(`SELECT ${columns} FROM conversations c WHERE c.is_here = 1`);
  const after = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM conversations c WHERE c.id > ? ORDER BY c.id LIMIT 200`,
  );
  const folded = db.prepare<[number, number], { id: string }>(
    'SELECT id FROM conversations WHERE fold < ? LIMIT ?',
  );
  const counts = db.prepare<[View], { line_group: Group; conversations: number }>(
    'SELECT line_group, conversations FROM line_counts WHERE view = ?',
  );
  let dueOf: DueOf = (state) => dueAt(state, always);

  /** With when its answer is due, as that is reckoned now. */
  const reckoned = (one: ConversationRecord): ConversationRecord => ({
    ...one,
    dueAt: dueOf(one.state, threadWrittenLast(one.threads)),
  });

  const newerThanRow = (id: string): ConversationRecord | null => {
    const newer = behind.get(id);
    return newer ? reckoned(newer) : null;
  };

  const fromStored = ({ id, fold, lineGroup, place, ...stored }: Stored): ConversationRecord => {
    const newer = newerThanRow(id);
    if (newer) return newer;
    const threads: ThreadState[] = JSON.parse(stored.threads);
    const placed = lineGroup === null ? null : { group: lineGroup, place: place ?? 0 };
    return reckoned({ id, threads, fold, placed, state: combine(threads), dueAt: null });
  };
  const one = (stored: Stored | undefined) => (stored ? fromStored(stored) : null);

  /** Puts it where it belongs in each view that shows it. */
  const place = (conversation: ConversationRecord, was: Placed | null, is: Placed | null): void => {
    if (isSame(was, is)) return;
    for (const view of inViews(conversation)) {
      const row = {
        view,
        id: conversation.id,
        group: is?.group,
        place: is?.place,
        wasGroup: was?.group,
        wasPlace: was?.place,
      };
      if (!was) addToLine.run(row);
      else if (!is) takeOutOfLine.run(row);
      else moveInLine.run(row);
    }
  };

  const read = (id: string): ConversationRecord | null => {
    const conversation = known.get(id) ?? newerThanRow(id) ?? one(byId.get(id));
    if (conversation) known.put(id, conversation);
    return conversation;
  };

  const settle = (most?: number): void => {
    for (const [id, { threads }] of behind.take(most)) {
      writeThreads.run(JSON.stringify(threads), id);
    }
  };

  return {
    /**
     * Writes a conversation, and where it stands in the line now; gives it as it is kept. Where only its fold is another
     * the row follows a moment later (`settle`): what is written again with each message is written once for many.
     */
    write: (written: ConversationRecord): ConversationRecord => {
      const { id, state, threads, fold } = written;
      const conversation = reckoned(written);
      const placed = placeOf(conversation);
      const kept = { ...conversation, placed };
      const before = known.get(id);
      if (before && db.inTransaction && isFoundAlike(before, conversation, placed)) {
        if (before.threads !== threads) behind.put(id, kept);
      } else {
        const { group = null, place: at = null } = placed ?? {};
        const isHere = state.isHere ? 1 : 0;
        write.run({ id, group, place: at, isHere, fold, threads: JSON.stringify(threads) });
        place(conversation, conversation.placed, placed);
        behind.written(id);
      }
      known.put(id, kept);
      return kept;
    },
    byId: read,
    /** Those of many ids that there are, in one read. */
    byIds: (ids: readonly string[]): ConversationRecord[] =>
      ids.length === 0 ? [] : byIds.all(JSON.stringify(ids)).map(fromStored),
    /** How many rows are behind what was said. */
    behindCount: behind.size,
    /** Writes rows that are behind, all or so many of those that wait longest. Call inside a transaction. */
    settle,
    /** A conversation whose row is behind, as it was found from its entries. */
    isBehind: (conversation: ConversationRecord): void => {
      known.put(conversation.id, conversation);
      behind.put(conversation.id, conversation);
      behind.commit();
    },
    forget: known.forget,
    commit: behind.commit,
    rollBack: behind.rollBack,
    /** A transaction within another begins: what that has is written, so that only its own is lost. Gives what undoes it. */
    beginWithin: (): (() => void) => {
      settle();
      return behind.within();
    },
    /** When answers are due is reckoned so from now on; where others stand already, they are to be written anew. */
    reckonDueBy: (reckon: DueOf): void => {
      dueOf = reckon;
      known.forget();
    },
    /** One keyset page of a group in a view, from its top (`after` null) or from behind a row. */
    page: (
      group: Group,
      afterKey: LineKey | null,
      most: number,
      view: View = 'all',
    ): ConversationRecord[] =>
      page
        .all({ view, group, place: afterKey?.place ?? -1e18, id: afterKey?.id ?? '', most })
        .map(fromStored),
    /** Ids of all in a group. */
    idsIn: (group: Group): string[] => inGroup.all(group).map(({ id }) => id),
    /** Those somebody is here of, as far as was kept. */
    here: (): ConversationRecord[] => here.all().map(fromStored),
    /** For going through all, in steps: those behind an id. */
    batchAfter: (id: string): ConversationRecord[] => after.all(id).map(fromStored),
    /** Some of those that an earlier version of the fold made. */
    foldedBefore: (version: number, most: number): string[] =>
      folded.all(version, most).map(({ id }) => id),
    counts: (view: View = 'all'): Counts => {
      const all = Object.fromEntries(groups.map((group) => [group, 0])) as Counts;
      for (const row of counts.all(view)) all[row.line_group] = row.conversations;
      return all;
    },
  };
};
