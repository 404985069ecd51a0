import type { Db } from './db';

export interface CardCount {
  cardId: string;
  tapped: number;
  enough: number;
}

export interface CardTap {
  threadId: string;
  /** Of the entry by which it was tapped. */
  seq: number;
  doorId: string;
  cardId: string;
  at: number;
}

/** What is kept of what is asked often, beside the cards themselves: those stand in the dress of their door. */
export const cardsTable = (db: Db) => {
  const addFile = db.prepare('INSERT INTO card_files VALUES (?, ?) ON CONFLICT DO NOTHING');
  const hasFile = db.prepare<[string, string], { found: number }>(
    'SELECT 1 AS found FROM card_files WHERE door_id = ? AND file_id = ?',
  );
  const count = db.prepare(
    `INSERT INTO card_counts VALUES (@doorId, @cardId, 1, @enough)
     ON CONFLICT DO UPDATE SET tapped = tapped + 1, enough = enough + @enough`,
  );
  const wasNotEnough = db.prepare(
    'UPDATE card_counts SET enough = enough - 1 WHERE door_id = ? AND card_id = ? AND enough > 0',
  );
  const counts = db.prepare<[string], CardCount>(
    'SELECT card_id AS cardId, tapped, enough FROM card_counts WHERE door_id = ?',
  );
  const addTap = db.prepare(
    'INSERT INTO card_taps VALUES (@threadId, @seq, @doorId, @cardId, @at)',
  );
  const tapsOf = db.prepare<[string, number], CardTap>(
    `SELECT thread_id AS threadId, seq, door_id AS doorId, card_id AS cardId, at FROM card_taps
     WHERE thread_id = ? AND at >= ?`,
  );
  const dropTaps = db.prepare('DELETE FROM card_taps WHERE thread_id = ?');
  const dropTapsBefore = db.prepare('DELETE FROM card_taps WHERE at < ?');
  return {
    /** A picture of a card belongs to its door from then on: what is published now may be taken back. */
    keepFile: (doorId: string, fileId: string): void => {
      addFile.run(doorId, fileId);
    },
    hasFile: (doorId: string, fileId: string): boolean => hasFile.get(doorId, fileId) !== undefined,
    counts: (doorId: string): CardCount[] => counts.all(doorId),
    /** Counts a tap; `isOpen`: whether it was enough can still change. */
    tap: (tap: CardTap, isOpen: boolean): void => {
      count.run({ doorId: tap.doorId, cardId: tap.cardId, enough: isOpen ? 1 : 0 });
      if (isOpen) addTap.run(tap);
    },
    /** Somebody wrote all the same: what they tapped since then was not enough. */
    notEnough: (threadId: string, since: number): void => {
      const taps = tapsOf.all(threadId, since);
      // Hardly any message comes after a tap.
      if (taps.length === 0) return;
      for (const { doorId, cardId } of taps) wasNotEnough.run(doorId, cardId);
      dropTaps.run(threadId);
    },
    dropTapsBefore: (at: number): void => {
      dropTapsBefore.run(at);
    },
  };
};
