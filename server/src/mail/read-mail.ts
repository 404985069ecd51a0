import { createHash } from 'node:crypto';
import type { Headers } from '@porch/core/mail';

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
  /** Where its writer wants to be answered, as it says; '' where it does not say, or names more than one. */
  replyTo: string;
  replyToName: string;
  /** Which mails it answers, as it says, the newest first. */
  answers: string[];
  /** Nothing but its header could be read, or not even that. */
  isUnreadable: boolean;
}

/** What is done with the bytes of a mail that anybody may have written. */
export interface MailJob {
  /** `head`: its header lines alone, where the whole could not be read. */
  do: 'read' | 'head';
  bytes: Buffer;
}

/** So much of a mail can be its header, in bytes. */
const HEAD_LARGEST_BYTES = 32 * 1024;

/** The header of a mail and nothing below it. */
export const headOf = (bytes: Buffer): Buffer => {
  const start = bytes.subarray(0, HEAD_LARGEST_BYTES).toString('latin1');
  const end = /\r?\n\r?\n/.exec(start)?.index ?? start.length;
  const lines = start.slice(0, end).replace(/^content-type:.*(?:\r?\n[ \t].*)*/gim, 'X-Was: none');
  return Buffer.from(`${lines}\r\n\r\n`, 'latin1');
};

/** A mail of which nothing could be read at all. */
export const bareMail = (bytes: Buffer): ReadMail => ({
  id: createHash('sha256').update(bytes).digest('base64url').slice(0, 24),
  messageId: null,
  from: '',
  fromName: '',
  writtenAt: null,
  to: [],
  subject: '',
  headers: {},
  said: '',
  rest: '',
  attached: [],
  pictures: [],
  status: '',
  replyTo: '',
  replyToName: '',
  answers: [],
  isUnreadable: true,
});
