import type { Counts, Row } from '@porch/contract/entries';
import type { ConversationState, Group } from '@porch/core/conversation';
import { groupOf, groups } from '@porch/core/conversation';
import { type LineKey, placeInLine } from '@porch/core/patience';
import type { Db } from './db';
import { createMemo } from './memo';

export interface ConversationRecord {
  id: string;
  doorId: string;
  visitorId: string;
  /** Which visitor's sockets hear of it. */
  tokenHash: string;
  state: ConversationState;
}

interface Stored extends Omit<ConversationRecord, 'state'> {
  state: string;
}

const columns =
  'c.id, c.door_id AS doorId, c.visitor_id AS visitorId, v.token_hash AS tokenHash, c.state';
const from = 'FROM conversations c JOIN visitors v ON v.id = c.visitor_id';

const fromStored = (stored: Stored): ConversationRecord => ({
  ...stored,
  state: JSON.parse(stored.state),
});

/** The row that crosses the wire. */
export const toRow = ({ id, doorId, state }: ConversationRecord): Row => ({
  id,
  doorId,
  group: groupOf(state),
  place: placeInLine(state),
  state,
});

const cached = ({ id, state }: ConversationRecord) => ({
  id,
  group: groupOf(state),
  place: placeInLine(state),
  putByUntil: state.putByUntil,
  isHere: state.isHere ? 1 : 0,
  state: JSON.stringify(state),
});

/** Enough for all that are being talked in. */
const KEPT_MOST = 2_000;

export const conversationsTable = (db: Db) => {
  const known = createMemo<ConversationRecord>(KEPT_MOST);
  const add = db.prepare(
    `INSERT INTO conversations
     VALUES (@id, @doorId, @visitorId, @group, @place, @putByUntil, @isHere, @state)`,
  );
  const update = db.prepare(
    `UPDATE conversations SET line_group = @group, place = @place, put_by_until = @putByUntil,
       is_here = @isHere, state = @state WHERE id = @id`,
  );
  const byId = db.prepare<[string], Stored>(`SELECT ${columns} ${from} WHERE c.id = ?`);
  const byIds = db.prepare<[string], Stored>(
    `SELECT ${columns} ${from} WHERE c.id IN (SELECT value FROM json_each(?))`,
  );
  const ofVisitor = db.prepare<[string], Stored>(
    `SELECT ${columns} ${from} WHERE c.visitor_id = ?`,
  );
  const page = db.prepare<{ group: Group; place: number; id: string; most: number }, Stored>(
    `SELECT ${columns} ${from}
     WHERE c.line_group = @group AND (c.place, c.id) > (@place, @id)
     ORDER BY c.place, c.id LIMIT @most`,
  );
  const putByDue = db.prepare<[number], Stored>(
    `SELECT ${columns} ${from} WHERE c.put_by_until <= ? ORDER BY c.put_by_until LIMIT 100`,
  );
  const here = db.prepare<[], { tokenHash: string }>(
    `SELECT v.token_hash AS tokenHash ${from} WHERE c.is_here = 1`,
  );
  const after = db.prepare<[string], Stored>(
    `SELECT ${columns} ${from} WHERE c.id > ? ORDER BY c.id LIMIT 200`,
  );
  const counts = db.prepare<[], { line_group: Group; conversations: number }>(
    'SELECT line_group, conversations FROM line_counts',
  );
  const one = (stored: Stored | undefined) => (stored ? fromStored(stored) : null);
  return {
    add: (conversation: ConversationRecord): void => {
      add.run({ ...conversation, ...cached(conversation) });
    },
    update: (conversation: ConversationRecord): void => {
      update.run(cached(conversation));
      known.put(conversation.visitorId, conversation);
    },
    byId: (id: string): ConversationRecord | null => one(byId.get(id)),
    /** Those of many ids that there are, in one read. */
    byIds: (ids: readonly string[]): ConversationRecord[] =>
      ids.length === 0 ? [] : byIds.all(JSON.stringify(ids)).map(fromStored),
    ofVisitor: (visitorId: string): ConversationRecord | null => {
      const conversation = known.get(visitorId) ?? one(ofVisitor.get(visitorId));
      if (conversation) known.put(visitorId, conversation);
      return conversation;
    },
    forget: known.forget,
    /** One keyset page of a group, from its top (`after` null) or from behind a row. */
    page: (group: Group, afterKey: LineKey | null, most: number): ConversationRecord[] =>
      page
        .all({ group, place: afterKey?.place ?? -1e18, id: afterKey?.id ?? '', most })
        .map(fromStored),
    putByDue: (now: number): ConversationRecord[] => putByDue.all(now).map(fromStored),
    tokensHere: (): string[] => here.all().map((row) => row.tokenHash),
    /** For going through all, in steps: those behind an id. */
    batchAfter: (id: string): ConversationRecord[] => after.all(id).map(fromStored),
    counts: (): Counts => {
      const all = Object.fromEntries(groups.map((group) => [group, 0])) as Counts;
      for (const row of counts.all()) all[row.line_group] = row.conversations;
      return all;
    },
  };
};
