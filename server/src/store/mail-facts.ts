import type { Db } from './db';

/** A picture of a mail that lies elsewhere, and the file that it became once it was fetched. */
export interface MailPictureRecord {
  at: number;
  address: string;
  fileId: string | null;
}

/** What is known of mails beside what stands in their entries. */
export const mailFactsTable = (db: Db) => {
  const add = db.prepare(
    'INSERT INTO mail_pictures VALUES (?, ?, ?, ?, NULL) ON CONFLICT DO NOTHING',
  );
  const of = db.prepare<[string, string], MailPictureRecord>(
    `SELECT at, address, file_id AS fileId FROM mail_pictures
     WHERE thread_id = ? AND entry_id = ? ORDER BY at`,
  );
  const fetched = db.prepare(
    'UPDATE mail_pictures SET file_id = ? WHERE thread_id = ? AND entry_id = ? AND at = ?',
  );
  const subject = db.prepare<[string], { subject: string }>(
    'SELECT subject FROM mail_subjects WHERE thread_id = ?',
  );
  const setSubject = db.prepare(
    'INSERT INTO mail_subjects VALUES (?, ?) ON CONFLICT DO UPDATE SET subject = excluded.subject',
  );
  return {
    /** What the last mail of a thread was about; '' where there was none, or it did not say. */
    subject: (threadId: string): string => subject.get(threadId)?.subject ?? '',
    setSubject: (threadId: string, about: string): void => {
      setSubject.run(threadId, about);
    },
    keepPictures: (threadId: string, entryId: string, addresses: readonly string[]): void => {
      for (const [at, address] of addresses.entries()) add.run(threadId, entryId, at, address);
    },
    pictures: (threadId: string, entryId: string): MailPictureRecord[] => of.all(threadId, entryId),
    fetched: (threadId: string, entryId: string, at: number, fileId: string): void => {
      fetched.run(fileId, threadId, entryId, at);
    },
  };
};
