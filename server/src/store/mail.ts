import type { MailSettings } from '@porch/contract/mail';
import type { Db } from './db';
import { createKept } from './kept';

export interface ReplyAddressRecord {
  id: string;
  conversationId: string;
  /** Whom the answer is for; '': whoever wrote last. */
  threadId: string;
  memberId: string;
  expiresAt: number;
}

/** How mail goes, by which addresses it is answered, and what of it has been looked at. */
export const mailTable = (db: Db) => {
  const settings = db.prepare<[], { settings: string }>('SELECT settings FROM mail_settings');
  const setSettings = db.prepare(
    'INSERT INTO mail_settings VALUES (1, ?) ON CONFLICT DO UPDATE SET settings = excluded.settings',
  );
  const addAddress = db.prepare(
    'INSERT INTO reply_addresses VALUES (@id, @conversationId, @memberId, @expiresAt, @threadId)',
  );
  const address = db.prepare<[string], ReplyAddressRecord>(
    `SELECT id, conversation_id AS conversationId, thread_id AS threadId, member_id AS memberId,
       expires_at AS expiresAt
     FROM reply_addresses WHERE id = ?`,
  );
  const dropAddresses = db.prepare('DELETE FROM reply_addresses WHERE expires_at < ?');
  const see = db.prepare('INSERT INTO mails_seen VALUES (?, ?) ON CONFLICT DO NOTHING');
  const seen = db.prepare<[string], { id: string }>('SELECT id FROM mails_seen WHERE id = ?');
  const forget = db.prepare('DELETE FROM mails_seen WHERE at < ?');
  const kept = createKept((): MailSettings | null => {
    const found = settings.get();
    return found ? JSON.parse(found.settings) : null;
  });
  return {
    settings: (): MailSettings | null => kept.get(),
    forget: kept.forget,
    setSettings: (next: MailSettings): void => {
      kept.forget();
      setSettings.run(JSON.stringify(next));
    },
    addAddress: (record: ReplyAddressRecord): void => {
      addAddress.run(record);
    },
    address: (id: string): ReplyAddressRecord | null => address.get(id) ?? null,
    dropAddressesBefore: (at: number): void => {
      dropAddresses.run(at);
    },
    /** False where it was seen before. */
    see: (id: string, at: number): boolean => see.run(id, at).changes > 0,
    wasSeen: (id: string): boolean => seen.get(id) !== undefined,
    forgetBefore: (at: number): void => {
      forget.run(at);
    },
  };
};
