export {
  type BounceReason,
  bounceReason,
  bounceReasons,
  type DeliveryStatus,
  readDeliveryStatus,
} from './bounces';

export { type Parted, partReply } from './quoted';
export { bareSubject } from './subjects';

/** The header lines of a mail that matter here, by name in small letters; the first of each. */
export type Headers = Readonly<Record<string, string | undefined>>;

/**
 * Whether a mail was sent by a program and not by a person: an out-of-office, a bounce, a list. Such are never
 * answered, and never taken for an answer (RFC 3834, 2 and 5; RFC 3464; RFC 2919 for lists).
 */
export const isAutomatic = (headers: Headers, envelopeFrom: string): boolean => {
  const submitted = headers['auto-submitted']?.trim().toLowerCase() ?? 'no';
  if (!submitted.startsWith('no')) return true;
  // A null return path asks for no answer at all (RFC 5321, 4.5.5).
  if (envelopeFrom === '') return true;
  if (/^(bulk|junk|list|auto_reply)$/i.test(headers.precedence?.trim() ?? '')) return true;
  if (headers['list-id'] !== undefined) return true;
  if (/multipart\/report/i.test(headers['content-type'] ?? '')) return true;
  if (headers['x-autoreply'] !== undefined || headers['x-autorespond'] !== undefined) return true;
  return /^(mailer-daemon|postmaster|no-?reply)@/i.test(envelopeFrom);
};

/** Whether the server that received a mail takes it for one that nobody wants, as such servers say it. */
export const isJunk = (headers: Headers): boolean =>
  /^yes\b/i.test(headers['x-spam-flag']?.trim() ?? '') ||
  /^yes\b/i.test(headers['x-spam-status']?.trim() ?? '');

/** Whether only its reader's own program can open a mail (RFC 3156, 4; RFC 8551, 3.2). */
export const isEncrypted = (headers: Headers): boolean => {
  const type = headers['content-type'] ?? '';
  return (
    /^multipart\/encrypted\b/i.test(type) ||
    (/^application\/(x-)?pkcs7-mime\b/i.test(type) && !/smime-type\s*=\s*"?signed-data/i.test(type))
  );
};

/** Whether the server that received a mail has found that its sender is forged (RFC 8601; DMARC, RFC 7489). */
export const isForged = (headers: Headers): boolean =>
  /\bdmarc\s*=\s*fail\b/i.test(headers['authentication-results'] ?? '');

/** An address with a detail in it (RFC 5233): "replies@porch.example", "ab12" → "replies+ab12@porch.example". */
export const withDetail = (address: string, detail: string): string =>
  address.replace(/@/, `+${detail}@`);

/** The detail in an address, where it is the base's otherwise; null where it is not. Letters count as the same in any case. */
export const detailOf = (address: string, base: string): string | null => {
  const [given, known] = [address.trim().toLowerCase(), base.toLowerCase()];
  const at = known.lastIndexOf('@');
  const [start, end] = [`${known.slice(0, at)}+`, known.slice(at)];
  if (!given.startsWith(start) || !given.endsWith(end)) return null;
  return given.slice(start.length, given.length - end.length) || null;
};

/** "Maren <Maren@Quillfern.example>" and "maren@quillfern.example" are the same address. */
export const isSameAddress = (one: string, other: string): boolean =>
  one !== '' && one.trim().toLowerCase() === other.trim().toLowerCase();
