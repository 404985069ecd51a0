import { type Dress, wholeDress } from '@porch/core/dress';
import type { Db } from './db';

export interface DraftRecord {
  draft: Dress | null;
  revision: number;
  changedBy: string | null;
}

export interface PublishedRecord {
  version: number;
  dress: Dress;
  publishedAt: number;
}

/** So many of the newest that were published are kept; of those before them nothing can be taken back. */
const KEPT_MOST = 100;

const fromStored = (dress: string): Dress => wholeDress(JSON.parse(dress));

/** How doors are dressed: every published dress, and the draft that is being worked on. */
export const dressesTable = (db: Db) => {
  const readDraft = db.prepare<[string], Omit<DraftRecord, 'draft'> & { draft: string | null }>(
    'SELECT draft, revision, changed_by AS changedBy FROM drafts WHERE door_id = ?',
  );
  const writeDraft = db.prepare(
    `INSERT INTO drafts VALUES (@doorId, @draft, 1, @memberId)
     ON CONFLICT DO UPDATE SET draft = @draft, revision = revision + 1, changed_by = @memberId`,
  );
  const newest = db.prepare<[string, number], Omit<PublishedRecord, 'dress'> & { dress: string }>(
    `SELECT version, dress, published_at AS publishedAt FROM dresses
     WHERE door_id = ? ORDER BY version DESC LIMIT 1 OFFSET ?`,
  );
  const publish = db.prepare(
    `INSERT INTO dresses
     SELECT @doorId, coalesce(max(version), 0) + 1, @dress, @now FROM dresses WHERE door_id = @doorId`,
  );
  const dropNewest = db.prepare(
    `DELETE FROM dresses WHERE door_id = @doorId
       AND version = (SELECT max(version) FROM dresses WHERE door_id = @doorId)`,
  );
  const dropOld = db.prepare(
    `DELETE FROM dresses WHERE door_id = @doorId
       AND version <= (SELECT max(version) FROM dresses WHERE door_id = @doorId) - @most`,
  );
  return {
    draft: (doorId: string): DraftRecord => {
      const found = readDraft.get(doorId);
      if (!found) return { draft: null, revision: 0, changedBy: null };
      return { ...found, draft: found.draft === null ? null : fromStored(found.draft) };
    },
    setDraft: (doorId: string, draft: Dress | null, memberId: string | null): void => {
      writeDraft.run({ doorId, memberId, draft: draft && JSON.stringify(draft) });
    },
    /** The published dress, or one that was published `back` times before it; null when there is none. */
    published: (doorId: string, back = 0): PublishedRecord | null => {
      const found = newest.get(doorId, back);
      return found ? { ...found, dress: fromStored(found.dress) } : null;
    },
    publish: (doorId: string, dress: Dress, now: number): void => {
      publish.run({ doorId, dress: JSON.stringify(dress), now });
      dropOld.run({ doorId, most: KEPT_MOST });
    },
    /** Takes the newest published dress back. */
    dropNewest: (doorId: string): void => {
      dropNewest.run({ doorId });
    },
  };
};
