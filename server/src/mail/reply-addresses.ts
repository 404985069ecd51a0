import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { detailOf, withDetail } from '@porch/core/mail';
import type { Clock } from '../clock';
import { createMadeSecret } from '../security/made-secret';
import type { Seal } from '../security/seal';
import type { ReplyAddressRecord, Store, VisitorAddressRecord } from '../store';

/** So long an alert can be answered by mail. */
export const REPLY_MS = 14 * 24 * 3_600_000;

/** So long a visitor's answer by mail comes back to their conversation. */
const VISITOR_REPLY_MS = 2 * 365 * 24 * 3_600_000;

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
export type Looked =
  | { is: 'open' | 'stale'; record: ReplyAddressRecord }
  | { is: 'visitor'; record: VisitorAddressRecord }
  | { is: 'unknown' };

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

  const signed = (secret: Buffer, ...what: (string | number)[]): string =>
    base32(createHmac('sha256', secret).update(what.join(' ')).digest(), MARK_LETTERS);

  const markOf = (record: ReplyAddressRecord, secret: Buffer): string => {
    const { id, conversationId, threadId, memberId, expiresAt } = record;
    const whom = threadId ? [threadId] : [];
    return signed(secret, id, conversationId, memberId, expiresAt, ...whom);
  };

  const visitorMarkOf = (record: VisitorAddressRecord, secret: Buffer): string => {
    const { id, threadId, address, expiresAt } = record;
    return signed(secret, 'visitor', id, threadId, address, expiresAt);
  };

  const isSame = (given: string, right: string): boolean => {
    const [one, other] = [Buffer.from(given), Buffer.from(right)];
    return one.length === other.length && timingSafeEqual(one, other);
  };

  /** Which conversation the part of an address before its @ answers, and as whom. */
  const lookDetail = (detail: string | null): Looked => {
    const secret = key();
    if (!secret || detail?.length !== ID_LETTERS + MARK_LETTERS) return { is: 'unknown' };
    const [id, mark] = [detail.slice(0, ID_LETTERS), detail.slice(ID_LETTERS)];
    const visitor = store.visitorMail.byId(id);
    if (visitor) {
      return isSame(mark, visitorMarkOf(visitor, secret))
        ? { is: 'visitor', record: visitor }
        : { is: 'unknown' };
    }
    const record = store.mail.address(id);
    if (!record || !isSame(mark, markOf(record, secret))) return { is: 'unknown' };
    return { is: record.expiresAt > clock.now() ? 'open' : 'stale', record };
  };

  return {
    /** Makes one; null where the key cannot be opened. Call inside a transaction. */
    make: (base: string, conversationId: string, threadId: string, memberId: string) => {
      const secret = key();
      if (!secret) return null;
      const id = base32(randomBytes(16), ID_LETTERS);
      const record = { id, conversationId, threadId, memberId, expiresAt: clock.now() + REPLY_MS };
      store.mail.addAddress(record);
      const address = withDetail(base, `${id}${markOf(record, secret)}`);
      return { address, expiresAt: record.expiresAt };
    },
    /** Which conversation an address answers, and as whom. */
    look: (address: string, base: string): Looked => lookDetail(detailOf(address, base)),
    lookDetail,
    /** The one by which a visitor answers, the same for as long as it can be; null where the key cannot be opened. */
    makeForVisitor: (base: string, threadId: string, email: string) => {
      const secret = key();
      if (!secret) return null;
      const record = store.atOnce(() => {
        const known = store.visitorMail.of(threadId, email);
        if (known && known.expiresAt - clock.now() > VISITOR_REPLY_MS / 2) return known;
        if (known) store.visitorMail.drop(known.id);
        const id = base32(randomBytes(16), ID_LETTERS);
        const expiresAt = clock.now() + VISITOR_REPLY_MS;
        const made = { id, threadId, address: email.trim().toLowerCase(), expiresAt };
        store.visitorMail.add(made);
        return made;
      });
      const detail = `${record.id}${visitorMarkOf(record, secret)}`;
      return { address: withDetail(base, detail), detail };
    },
    /** Where their key can never be opened again another one is made: what went out before cannot be answered. */
    renewIfShut: made.renewIfShut,
    /** Forgets those that nobody could answer by for a long time; until then they are said to be too old. */
    tidy: (): void => {
      store.mail.dropAddressesBefore(clock.now() - REPLY_MS);
      store.visitorMail.dropBefore(clock.now());
    },
  };
};

export type ReplyAddresses = ReturnType<typeof createReplyAddresses>;
