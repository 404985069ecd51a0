import { createHash } from 'node:crypto';
import { en } from '@porch/core/alert-mail';
import { type Headers, partReply } from '@porch/core/mail';
import { cleanMessage } from '@porch/core/text';
import { ABOVE_MARK } from '@porch/core/visitor-mail';
import { compile } from 'html-to-text';
import type { AddressObject, Attachment, ParsedMail } from 'mailparser';
import { picturesIn } from './pictures';
import type { Attached, MailJob, ReadMail } from './read-mail';

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

/** RFC 3464, 2; RFC 6533, 3 and 4, for addresses in any script. */
const REPORT = /^multipart\/report\b.*\breport-type\s*=\s*"?(?:global-)?delivery-status/i;
const STATUS_TYPE = /^message\/(?:global-)?delivery-status$/i;

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
const shallowAsText = compile({
  wordwrap: false,
  formatters: {
    /** What stands beside something else has a space between. */
    beside: (element, walk, builder) => {
      walk(element.children, builder);
      builder.addInline(' ');
    },
  },
  limits: { maxDepth: DEPTH_MOST, ellipsis: '' },
  selectors: [
    { selector: 'img', format: 'skip' },
    ...['tr', 'dt', 'dd'].map((selector) => ({
      selector,
      format: 'block',
      options: { leadingLineBreaks: 1, trailingLineBreaks: 1 },
    })),
    ...['td', 'th'].map((selector) => ({ selector, format: 'beside' })),
    { selector: 'a', options: { hideLinkHrefIfSameAsText: true } },
    ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6'].map((selector) => ({
      selector,
      options: { uppercase: false },
    })),
  ],
});

/** Tags that only say where a line begins or how it looks; of very deep HTML nothing else is read of them. */
const BOXES =
  /<\/?(?:div|span|font|b|i|u|p|section|article|center|table|tbody|tr|td|th|blockquote)\b[^<>]*>/gi;

/** How deep tags stand in each other, as far as it can be seen without reading them. */
const depthOf = (html: string): number => {
  let depth = 0;
  let deepest = 0;
  for (const [tag] of html.matchAll(BOXES)) {
    depth += tag.startsWith('</') ? -1 : 1;
    deepest = Math.max(deepest, depth);
  }
  return deepest;
};

/** Deep HTML takes a time that grows by the square of its depth: it is made flat before it is read. */
const asText = (html: string): string => {
  const read = html.slice(0, HTML_LONGEST);
  return shallowAsText(depthOf(read) > DEPTH_MOST ? read.replace(BOXES, '<br>') : read);
};

/** So much of a text, in characters, tells whether it stands in another. */
const ALIKE_LONGEST = 200;
const squeezed = (text: string): string => text.replace(/[^\p{L}\p{N}]+/gu, ' ').trim();

const wordCount = (text: string): number => text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;

/** Of what a plain part says less than so much of what the other form says stands in its place ("see the HTML part"). */
const STUB_SHARE = 0.5;
/** Only so little can be a stub, in words. */
const STUB_MOST = 60;

/** What is written in it: the plain part, but where that is only a word in the place of the other form. */
const textIn = ({ text = '', html }: ParsedMail): string => {
  if (!html) return text;
  const plainWords = wordCount(text);
  if (plainWords > STUB_MOST) return text;
  const other = asText(html);
  // Where the other form says the same and more (a signature, a notice), the plain one is what was written.
  if (plainWords > 0 && squeezed(other).includes(squeezed(text).slice(0, ALIKE_LONGEST)))
    return text;
  return plainWords < wordCount(other.replace(/\[https?:[^\]\s]*\]/g, '')) * STUB_SHARE
    ? other
    : text;
};

/** What was signed in the open (RFC 9580, 7), without what signs it. */
const unsigned = (text: string): string =>
  text
    .replace(/^-----BEGIN PGP SIGNED MESSAGE-----\s*\n(?:[A-Za-z-]+:.*\n)*\s*\n/m, '')
    .replace(
      /^-----BEGIN PGP SIGNATURE-----[\s\S]*?(?:^-----END PGP SIGNATURE-----\s*$|$(?![\s\S]))/m,
      '',
    )
    .replace(/^- (?=-)/gm, '');

/** By what a mail was signed, which nobody reads. */
const SIGNATURE_TYPE = /^application\/(x-)?(pkcs7|pgp)-signature$/i;

/** What is shown within the text and is smaller is a logo under a signature, and no picture that somebody sends. */
const ORNAMENT_LARGEST_BYTES = 10_000;

const isOrnament = ({ related, contentType, content }: Attachment): boolean =>
  related && (!contentType.startsWith('image/') || content.length <= ORNAMENT_LARGEST_BYTES);

const wordsIn = (text: string): Pick<ReadMail, 'said' | 'rest'> => {
  const { said, rest } = partReply(unsigned(text.slice(0, TEXT_LONGEST)), ourLines);
  const kept = cleanMessage(rest);
  return {
    said: cleanMessage(said),
    rest: kept.length > REST_LONGEST ? `${kept.slice(0, REST_LONGEST)} …` : kept,
  };
};

/** What stands in a mail of several parts of which none was found: a boundary that does not fit hides no words. */
const brokenIn = ({ html, attachments }: ParsedMail, headers: Headers, bytes: Buffer): string => {
  const isOfParts = /^multipart\//i.test(headers['content-type'] ?? '');
  if (!isOfParts || html || attachments.length > 0) return '';
  const whole = bytes.subarray(0, TEXT_LONGEST).toString('utf8').replace(/\r\n?/g, '\n');
  const body = whole.slice(whole.indexOf('\n\n') + 2);
  return body
    .split('\n')
    .filter((line) => !/^(?:--\S|content-[a-z-]+:|mime-version:)/i.test(line))
    .join('\n')
    .trim();
};

/** Of more it is not looked up which they were. */
const ANSWERS_MOST = 20;

/** The same for the same mail, however often it is handed over; two that share a name and say different things are two. */
const idOf = (
  messageId: string | null,
  bytes: Buffer,
  { said, rest }: Pick<ReadMail, 'said' | 'rest'>,
  attached: readonly Attached[],
): string => {
  const hash = createHash('sha256');
  if (messageId === null) hash.update(bytes);
  else {
    hash.update(JSON.stringify([messageId, said, rest, attached.map(({ name }) => name)]));
    for (const { bytes: content } of attached) hash.update(content);
  }
  return hash.digest('base64url').slice(0, 24);
};

/** What a server says of a delivery: where the parser has put it into the text, and where it left it as a file. */
const statusIn = ({ text = '', attachments }: ParsedMail): string =>
  [
    text,
    ...attachments
      .filter(({ contentType }) => STATUS_TYPE.test(contentType))
      .map(({ content }) => content.toString('utf8')),
  ].join('\n\n');

/** How servers write that say so in a text of their own, from before RFC 3464 and after it. */
const OLD_BOUNCE =
  /(?:could not be delivered|couldn'?t be delivered|was undeliverable|delivery (?:has )?failed|wasn'?t able to deliver|permanent (?:fatal )?error|user unknown|mailbox unavailable|no such user|550[ -]5?\.?)/i;
const OLD_DELAY = /(?:delayed|not yet been delivered|will (?:continue to|keep) try|still trying)/i;

/** A bounce of an older form, in the words of the newer: from a server, and saying so; '' where it is none. */
const oldBounceIn = (parsed: ParsedMail, headers: Headers): string => {
  const from = addressesIn(parsed.from)[0] ?? '';
  const isServers = /^(?:mailer-daemon|postmaster)@/i.test(from);
  const { text = '' } = parsed;
  if (!isServers || headers['list-id'] !== undefined) return '';
  const about = `${parsed.subject ?? ''}\n${text.slice(0, 4_000)}`;
  const action = OLD_DELAY.test(about) ? 'delayed' : OLD_BOUNCE.test(about) ? 'failed' : null;
  if (action === null) return '';
  const status = /\b([45]\.\d{1,3}\.\d{1,3})\b/.exec(about)?.[1] ?? '5.0.0';
  const recipient = /[^\s<>@]+@[^\s<>@:;,]+/.exec(text)?.[0] ?? '';
  return `Reporting-MTA: dns; unknown\n\nFinal-Recipient: rfc822; ${recipient}\nAction: ${action}\nStatus: ${status}\n`;
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
    .filter((one) => !STATUS_TYPE.test(one.contentType))
    .filter((one) => !SIGNATURE_TYPE.test(one.contentType) && !isOrnament(one))
    .map(({ filename, content }) => ({ name: filename ?? 'file', bytes: content }));
  const messageId = parsed.messageId ?? null;
  const headers = headersOf(parsed);
  // Of several it is not known whose word is meant, nor which of them a server has made sure of.
  const writers = addressesIn(parsed.from);
  const repliesTo = addressesIn(parsed.replyTo);
  const words = wordsIn(textIn(parsed) || brokenIn(parsed, headers, bytes));
  const isReport = REPORT.test(headers['content-type'] ?? '');
  return {
    id: idOf(messageId, bytes, words, attached),
    messageId,
    from: writers.length === 1 ? (writers[0] ?? '') : '',
    fromName: parsed.from?.value[0]?.name ?? '',
    writtenAt: parsed.date ? parsed.date.getTime() : null,
    to: [...addressesIn(parsed.to), ...addressesIn(parsed.cc)],
    subject: parsed.subject ?? '',
    headers,
    ...words,
    attached,
    pictures: parsed.html ? picturesIn(parsed.html.slice(0, HTML_LONGEST)) : [],
    // The parser puts what a server says of a delivery into the text.
    status: isReport ? statusIn(parsed) : oldBounceIn(parsed, headers),
    replyTo: repliesTo.length === 1 ? (repliesTo[0] ?? '') : '',
    replyToName: parsed.replyTo?.value[0]?.name ?? '',
    answers: [parsed.inReplyTo ?? [], [parsed.references ?? []].flat().toReversed()]
      .flat()
      .slice(0, ANSWERS_MOST),
    isUnreadable: false,
  };
};

/** What the header of a mail says, of which nothing else could be read. */
export const readHead = async (head: Buffer): Promise<ReadMail> => ({
  ...(await readMail(head)),
  said: '',
  rest: '',
  isUnreadable: true,
});

/** Does one job; may take long, take much memory, or never end: see `createMailReader`. */
export const readJob = ({ do: what, bytes }: MailJob): Promise<ReadMail> =>
  what === 'read' ? readMail(bytes) : readHead(bytes);
