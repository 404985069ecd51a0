import { createHash } from 'node:crypto';
import { en } from '@porch/core/alert-mail';
import { type Headers, partReply } from '@porch/core/mail';
import { cleanMessage } from '@porch/core/text';
import { ABOVE_MARK } from '@porch/core/visitor-mail';
import { compile } from 'html-to-text';
import type { AddressObject, Attachment, ParsedMail } from 'mailparser';
import { picturesIn } from './pictures';

export interface Attached {
  name: string;
  bytes: Buffer;
}

/** A mail as far as it matters here. */
export interface ReadMail {
  /** The same for the same mail, however often it is handed over. */
  id: string;
  messageId: string | null;
  /** What the header says; anybody can write anything there. '' where it names nobody, or more than one. */
  from: string;
  /** What they call themselves there; '' where it does not say. */
  fromName: string;
  /** When it was written, as it says. UTC epoch milliseconds; null: it does not say. */
  writtenAt: number | null;
  /** To whom it was addressed, by its header. */
  to: string[];
  subject: string;
  headers: Headers;
  /** What its writer has written, without what was quoted and without their signature. */
  said: string;
  /** What stood there besides, as far as it is kept. */
  rest: string;
  attached: Attached[];
  /** Where pictures lie that it shows and does not carry; without those that only tell that it was read. */
  pictures: string[];
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
  'x-spam-flag',
  'x-spam-status',
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

/** So much of what was quoted is kept, in characters: whole conversations hang from a mail. */
const REST_LONGEST = 20_000;
/** What is longer is no letter; what would be beyond it is not looked at. */
const TEXT_LONGEST = 1_000_000;

/** So much of HTML is read, in characters: what somebody has just written stands first. */
const HTML_LONGEST = 300_000;
/** So deep HTML is read; a whole correspondence hangs from some mails, and what is deeper would end the reading. */
const DEPTH_MOST = 200;

/** HTML as text: no line is broken that was not, and of what would be fetched from elsewhere nothing is said. */
const asText = compile({
  wordwrap: false,
  limits: { maxDepth: DEPTH_MOST },
  selectors: [
    { selector: 'img', format: 'skip' },
    { selector: 'a', options: { hideLinkHrefIfSameAsText: true } },
    ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6'].map((selector) => ({
      selector,
      options: { uppercase: false },
    })),
  ],
});

const textIn = ({ text = '', html }: ParsedMail): string =>
  text.trim() || !html ? text : asText(html.slice(0, HTML_LONGEST));

/** By what a mail was signed, which nobody reads. */
const SIGNATURE_TYPE = /^application\/(x-)?(pkcs7|pgp)-signature$/i;

/** What is shown within the text and is smaller is a logo under a signature, and no picture that somebody sends. */
const ORNAMENT_LARGEST_BYTES = 10_000;

const isOrnament = ({ related, contentType, content }: Attachment): boolean =>
  related && (!contentType.startsWith('image/') || content.length <= ORNAMENT_LARGEST_BYTES);

const wordsIn = (text: string): Pick<ReadMail, 'said' | 'rest'> => {
  const { said, rest } = partReply(text.slice(0, TEXT_LONGEST), ourLines);
  const kept = cleanMessage(rest);
  return {
    said: cleanMessage(said),
    rest: kept.length > REST_LONGEST ? `${kept.slice(0, REST_LONGEST)} …` : kept,
  };
};

/** Reads a whole mail (RFC 5322, with its encodings). What cannot be decoded is read as well as it can be. */
export const readMail = async (bytes: Buffer): Promise<ReadMail> => {
  // Much of it, and needed only from the first mail on: the house starts without.
  const { simpleParser } = await import('mailparser');
  const parsed = await simpleParser(bytes, {
    skipImageLinks: true,
    skipTextToHtml: true,
    skipHtmlToText: true,
  });
  const attached = parsed.attachments
    .filter((one) => !SIGNATURE_TYPE.test(one.contentType) && !isOrnament(one))
    .map(({ filename, content }) => ({ name: filename ?? 'file', bytes: content }));
  const messageId = parsed.messageId ?? null;
  const headers = headersOf(parsed);
  // Of several it is not known whose word is meant, nor which of them a server has made sure of.
  const writers = addressesIn(parsed.from);
  return {
    id: createHash('sha256')
      .update(messageId ?? bytes)
      .digest('base64url')
      .slice(0, 24),
    messageId,
    from: writers.length === 1 ? (writers[0] ?? '') : '',
    fromName: parsed.from?.value[0]?.name ?? '',
    writtenAt: parsed.date ? parsed.date.getTime() : null,
    to: [...addressesIn(parsed.to), ...addressesIn(parsed.cc)],
    subject: parsed.subject ?? '',
    headers,
    ...wordsIn(textIn(parsed)),
    attached,
    pictures: parsed.html ? picturesIn(parsed.html.slice(0, HTML_LONGEST)) : [],
    // The parser puts what a server says of a delivery into the text.
    status: REPORT.test(headers['content-type'] ?? '') ? (parsed.text ?? '') : '',
  };
};
