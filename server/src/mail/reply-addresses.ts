import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { detailOf, withDetail } from '@porch/core/mail';
import type { Clock } from '../clock';
import { createMadeSecret } from '../security/made-secret';
import type { Seal } from '../security/seal';
import type { ReplyAddressRecord, Store } from '../store';

/** So long an alert can be answered by mail. */
export const REPLY_MS = 14 * 24 * 3_600_000;

const ID_LETTERS = 10;
const MARK_LETTERS = 20;

/** Letters that no mail program changes, in one case: the part before the @ may come back in another. */
const LETTERS = 'abcdefghijklmnopqrstuvwxyz234567';

/** RFC 4648, 6, in small letters, as many of them as are asked for. */
const base32 = (bytes: Buffer, letters: number): string =>
  Array.from({ length: letters }, (_, at) => {
    const bit = at * 5;
    const two = ((bytes[bit >> 3] ?? 0) << 8) | (bytes[(bit >> 3) + 1] ?? 0);
    return LETTERS[(two >> (11 - (bit & 7))) & 31];
  }).join('');

/** What an address turned out to be. */
export type Looked = { is: 'open' | 'stale'; record: ReplyAddressRecord } | { is: 'unknown' };

/**
 * Addresses by which one person answers one conversation for a while. Each is signed: nobody makes one who has
 * only the database, and one that is known is good for nothing else.
 */
export const createReplyAddresses = (services: { store: Store; seal: Seal; clock: Clock }) => {
  const { store, clock } = services;
  const made = createMadeSecret(services, 'reply-addresses', () =>
    randomBytes(32).toString('base64url'),
  );

  const key = (): Buffer | null => {
    const read = made.read();
    return read === null ? null : Buffer.from(read, 'base64url');
  };

  const markOf = (record: ReplyAddressRecord, secret: Buffer): string => {
    const { id, conversationId, memberId, expiresAt } = record;
    const signed = createHmac('sha256', secret)
      .update([id, conversationId, memberId, expiresAt].join(' '))
      .digest();
    return base32(signed, MARK_LETTERS);
  };

  return {
    /** Makes one; null where the key cannot be opened. Call inside a transaction. */
    make: (base: string, conversationId: string, memberId: string) => {
      const secret = key();
      if (!secret) return null;
      const id = base32(randomBytes(16), ID_LETTERS);
      const record = { id, conversationId, memberId, expiresAt: clock.now() + REPLY_MS };
      store.mail.addAddress(record);
      const address = withDetail(base, `${id}${markOf(record, secret)}`);
      return { address, expiresAt: record.expiresAt };
    },
    /** Which conversation an address answers, and as whom. */
    look: (address: string, base: string): Looked => {
      const detail = detailOf(address, base);
      const secret = key();
      if (!secret || detail?.length !== ID_LETTERS + MARK_LETTERS) return { is: 'unknown' };
      const record = store.mail.address(detail.slice(0, ID_LETTERS));
      if (!record) return { is: 'unknown' };
      const [given, right] = [
        Buffer.from(detail.slice(ID_LETTERS)),
        Buffer.from(markOf(record, secret)),
      ];
      if (given.length !== right.length || !timingSafeEqual(given, right)) return { is: 'unknown' };
      return { is: record.expiresAt > clock.now() ? 'open' : 'stale', record };
    },
    /** Where their key can never be opened again another one is made: what went out before cannot be answered. */
    renewIfShut: made.renewIfShut,
    /** Forgets those that nobody could answer by for a long time; until then they are said to be too old. */
    tidy: (): void => store.mail.dropAddressesBefore(clock.now() - REPLY_MS),
  };
};

export type ReplyAddresses = ReturnType<typeof createReplyAddresses>;
