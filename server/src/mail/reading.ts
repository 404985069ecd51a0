import { createHash } from 'node:crypto';
import { en } from '@porch/core/alert-mail';
import type { Headers } from '@porch/core/mail';
import { cleanMessage } from '@porch/core/text';
import { ABOVE_MARK } from '@porch/core/visitor-mail';
import EmailReplyParser from 'email-reply-parser';
import { type AddressObject, type ParsedMail, simpleParser } from 'mailparser';

export interface Attached {
  name: string;
  bytes: Buffer;
}

/** A mail as far as it matters here. */
export interface ReadMail {
  /** The same for the same mail, however often it is handed over. */
  id: string;
  messageId: string | null;
  /** What the header says; anybody can write anything there. */
  from: string;
  /** To whom it was addressed, by its header. */
  to: string[];
  subject: string;
  headers: Headers;
  /** What its writer has written, without what was quoted and without their signature. */
  said: string;
  attached: Attached[];
  /** What a server says became of a mail of ours (message/delivery-status); '' where it is no such mail. */
  status: string;
}

/** Headers that decide something; others are not kept. */
const NAMES = [
  'auto-submitted',
  'precedence',
  'list-id',
  'content-type',
  'x-autoreply',
  'x-autorespond',
  'authentication-results',
] as const;

/** RFC 3464, 2 */
const REPORT = /^multipart\/report\b.*\breport-type\s*=\s*"?delivery-status/i;

const addressesIn = (field: AddressObject | AddressObject[] | undefined): string[] =>
  [field ?? []].flat().flatMap(({ value }) => value.flatMap(({ address }) => address ?? []));

/** The header as it was written: programs that read it give some of its fields another form. */
const headersOf = ({ headerLines }: ParsedMail): Headers =>
  Object.fromEntries(
    NAMES.map((name) => {
      const line = headerLines.find(({ key }) => key === name)?.line;
      return [
        name,
        line
          ?.slice(line.indexOf(':') + 1)
          .replace(/\s+/g, ' ')
          .trim(),
      ];
    }),
  );

/** The lines above which an answer is written: the team's, and what marks a visitor's. */
const ourLines = [en.above, ABOVE_MARK];

/**
 * What somebody wrote above what they answer: cut at our own line, which every program quotes in some way, then at
 * what a program or a person puts around an answer (quoted lines, "On … wrote:", a signature after two dashes).
 */
export const ownWords = (text: string): string => {
  const above = text.split('\n').findIndex((line) => ourLines.some((ours) => line.includes(ours)));
  const kept = above < 0 ? text : text.split('\n').slice(0, above).join('\n');
  return cleanMessage(new EmailReplyParser().parseReply(kept));
};

/** Reads a whole mail (RFC 5322, with its encodings). What cannot be decoded is read as well as it can be. */
export const readMail = async (bytes: Buffer): Promise<ReadMail> => {
  const parsed = await simpleParser(bytes, { skipImageLinks: true, skipTextToHtml: true });
  const attached = parsed.attachments
    // What is shown within the text (a logo under a signature) is no attachment of its own.
    .filter(({ related }) => !related)
    .map(({ filename, content }) => ({ name: filename ?? 'file', bytes: content }));
  const messageId = parsed.messageId ?? null;
  const headers = headersOf(parsed);
  return {
    id: createHash('sha256')
      .update(messageId ?? bytes)
      .digest('base64url')
      .slice(0, 24),
    messageId,
    from: addressesIn(parsed.from)[0] ?? '',
    to: [...addressesIn(parsed.to), ...addressesIn(parsed.cc)],
    subject: parsed.subject ?? '',
    headers,
    said: ownWords(parsed.text ?? ''),
    attached,
    // The parser puts what a server says of a delivery into the text.
    status: REPORT.test(headers['content-type'] ?? '') ? (parsed.text ?? '') : '',
  };
};
