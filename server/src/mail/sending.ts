import { createHash } from 'node:crypto';
import type { OutgoingMail } from '@porch/contract/mail';

/** A mail as it goes out. */
export interface OutMail {
  to: string;
  /** What the sender is called. */
  fromName: string;
  replyTo: string | null;
  subject: string;
  text: string;
  html?: string;
  messageId: string;
  /** What it belongs to, oldest first: the mails of its thread. */
  references: readonly string[];
  /** A person wrote it; a program that answers by itself may. */
  isPersons?: boolean;
  /** Whether no person but a mail asked for it. */
  isReply?: boolean;
  /** Where it is told that it did not arrive; otherwise to whom it is from. */
  bouncesTo?: string;
  attached?: readonly { name: string; type: string; bytes: Buffer }[];
  /** By which address no more of these come (RFC 8058). */
  stop?: string;
}

/** What came of sending: null, or by a code why not, and what the server itself said. */
export interface Sent {
  why: string | null;
  said: string;
  /** Trying the same again is no use. */
  isFinal: boolean;
}

const CONNECT_LONGEST_MS = 30_000;
const GREETING_LONGEST_MS = 60_000;
/**
 * A server may take so long to say that it has a mail (RFC 5321, 4.5.3.2.6): whoever hangs up before that and sends it
 * again is read twice.
 */
const ANSWER_LONGEST_MS = 10 * 60_000;

/** How long handing over one mail may take. */
export const SEND_LONGEST_MS = ANSWER_LONGEST_MS + 2 * 60_000;

/** The name of a mail that was made by a job: the same on each try, so that a mail that goes twice is shown once. */
export const messageIdOf = (what: string, key: string, origin: string): string => {
  const mark = createHash('sha256').update(key).digest('hex').slice(0, 32);
  return `<${what}.${mark}@${new URL(origin).hostname}>`;
};

const SAID_LONGEST = 400;

interface MailError {
  code?: string;
  responseCode?: number;
  response?: string;
  message?: string;
}

/** What nodemailer's errors mean: its codes, and a server's own (RFC 5321, 4.2.1: 4 means later, 5 means no). */
export const meaningOf = (error: MailError): Sent => {
  const said = (error.response ?? error.message ?? '').slice(0, SAID_LONGEST);
  const is = (why: string, isFinal: boolean): Sent => ({ why, said, isFinal });
  if (error.code === 'EAUTH') return is('mail-sign-in', false);
  if (error.code === 'ETLS' || /certificate|wrong version number|SSL/i.test(said)) {
    return is('mail-encryption', false);
  }
  const { responseCode } = error;
  if (responseCode !== undefined && responseCode >= 500) return is('mail-refused', true);
  if (responseCode !== undefined && responseCode >= 400) return is('mail-later', false);
  return is('mail-unreachable', false);
};

export const sendMail = async (
  { host, port, security, user, from }: OutgoingMail,
  password: string,
  mail: OutMail,
  /** How long the server may take for its last word. */
  answerLongestMs = ANSWER_LONGEST_MS,
): Promise<Sent> => {
  const { createTransport } = await import('nodemailer');
  const transport = createTransport({
    host,
    port,
    secure: security === 'tls',
    requireTLS: security === 'starttls',
    ignoreTLS: security === 'none',
    ...(user ? { auth: { user, pass: password } } : {}),
    connectionTimeout: CONNECT_LONGEST_MS,
    greetingTimeout: GREETING_LONGEST_MS,
    socketTimeout: answerLongestMs,
    // Nothing in a mail is read from a file or fetched from an address.
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  try {
    await transport.sendMail({
      from: { name: mail.fromName, address: from },
      to: mail.to,
      ...(mail.replyTo ? { replyTo: mail.replyTo } : {}),
      subject: mail.subject,
      text: mail.text,
      ...(mail.html ? { html: mail.html } : {}),
      messageId: mail.messageId,
      ...(mail.attached
        ? {
            attachments: mail.attached.map(({ name, type, bytes }) => ({
              filename: name,
              contentType: type,
              content: bytes,
            })),
          }
        : {}),
      ...(mail.references.length > 0
        ? { references: [...mail.references], inReplyTo: mail.references.at(-1) }
        : {}),
      ...(mail.bouncesTo ? { envelope: { from: mail.bouncesTo, to: mail.to } } : {}),
      headers: {
        // So that no program answers what a program wrote (RFC 3834, 5).
        ...(mail.isPersons
          ? {}
          : { 'Auto-Submitted': mail.isReply ? 'auto-replied' : 'auto-generated' }),
        ...(mail.stop
          ? {
              'List-Unsubscribe': `<${mail.stop}>`,
              'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
            }
          : {}),
      },
    });
    return { why: null, said: '', isFinal: true };
  } catch (error) {
    return meaningOf(error as MailError);
  } finally {
    transport.close();
  }
};
