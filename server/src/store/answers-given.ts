import type { Db } from './db';

/** What was answered to what. */
export interface AnswerGiven {
  /** Of the answer's entry. */
  seq: number;
  question: string;
  text: string;
  language: string;
}

/** Something stored that was picked after a question. */
export interface Pick {
  kind: string;
  id: string;
  question: string;
}

/** So many of the newest answers are looked through for what fits. */
export const ANSWERS_KEPT_MOST = 3_000;
/** After so many of the newest questions what was picked is known well enough. */
export const PICKS_KEPT_MOST = 20;

/** What a business has answered, to be offered to whoever asks alike. */
export const answersGivenTable = (db: Db) => {
  const add = db.prepare(
    'INSERT INTO answers_given VALUES (@seq, @question, @text, @language) ON CONFLICT DO NOTHING',
  );
  const bySeq = db.prepare<[number], AnswerGiven>('SELECT * FROM answers_given WHERE seq = ?');
  const newest = db.prepare<[number], AnswerGiven>(
    'SELECT * FROM answers_given ORDER BY seq DESC LIMIT ?',
  );
  const dropOld = db.prepare(
    `DELETE FROM answers_given WHERE seq <= coalesce(
       (SELECT seq FROM answers_given ORDER BY seq DESC LIMIT 1 OFFSET ?), -1)`,
  );
  const addPick = db.prepare('INSERT INTO picks VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING');
  const dropOldPicks = db.prepare(
    `DELETE FROM picks WHERE kind = ? AND id = ? AND seq <= coalesce(
       (SELECT seq FROM picks WHERE kind = ? AND id = ? ORDER BY seq DESC LIMIT 1 OFFSET ?), -1)`,
  );
  const picksOf = db.prepare<[string, string], Pick>(
    'SELECT kind, id, question FROM picks WHERE kind = ? AND id = ? ORDER BY seq DESC',
  );
  const forget = db.prepare('DELETE FROM picks WHERE kind = ? AND id = ?');
  return {
    add: (given: AnswerGiven): void => {
      add.run(given);
      dropOld.run(ANSWERS_KEPT_MOST);
    },
    bySeq: (seq: number): AnswerGiven | null => bySeq.get(seq) ?? null,
    newest: (): AnswerGiven[] => newest.all(ANSWERS_KEPT_MOST),
    addPick: ({ kind, id, question }: Pick, seq: number): void => {
      addPick.run(kind, id, seq, question);
      dropOldPicks.run(kind, id, kind, id, PICKS_KEPT_MOST);
    },
    picksOf: (kind: string, id: string): Pick[] => picksOf.all(kind, id),
    /** What was picked is not there any more. */
    forgetPicks: (kind: string, id: string): void => {
      forget.run(kind, id);
    },
  };
};
