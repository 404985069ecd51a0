import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readMail } from '@porch/server/mail/reading';
import EmailReplyParser from 'email-reply-parser';
import { simpleParser } from 'mailparser';

/** Answers as mail programs of many kinds and languages write them, in files of the open form (RFC 4155). */
export const halves = ['tuned', 'held-out'] as const;
export type Half = (typeof halves)[number];

/** What of a mail is the answer, and words of what else stands in it. */
interface Right {
  answer: string;
  rest: string[];
}

interface Found {
  id: string;
  /** All that its writer says is there. */
  isKept: boolean;
  /** Nothing else is, and that was kept apart; null: there was nothing else. */
  isCut: boolean | null;
}

const folder = join(process.cwd(), 'bench', 'quoted');

const squeezed = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** The mails of a file: each after a line that begins with "From ", and such lines within them with a sign before. */
const mailsOf = (half: Half): Buffer[] =>
  readFileSync(join(folder, `${half}.mbox`), 'latin1')
    .split(/^From .*\n/m)
    .slice(1)
    .map((mail) => Buffer.from(mail.replace(/^>(>*From )/gm, '$1'), 'latin1'));

const judge = (id: string, right: Right, said: string, rest: string | null): Found => {
  const has = (text: string, part: string): boolean => squeezed(text).includes(squeezed(part));
  const isCut = right.rest.every((part) => !has(said, part) && (rest === null || has(rest, part)));
  return {
    id,
    isKept: right.answer.split('\n').every((line) => has(said, line)),
    isCut: right.rest.length > 0 ? isCut : null,
  };
};

/** Reads one half of the mails as the house does and, in the same run, by a library that does it by lists of words. */
export const quotedParted = async (half: Half): Promise<{ ours: Found[]; library: Found[] }> => {
  const rights: Record<string, Right> = JSON.parse(
    readFileSync(join(folder, 'answers.json'), 'utf8'),
  );
  const read = await Promise.all(
    mailsOf(half).map(async (bytes) => {
      const { messageId, said, rest } = await readMail(bytes);
      const id = messageId?.slice(1).split('@')[0] ?? '';
      const right = rights[id];
      if (!right) throw new Error(`nobody has said what the answer is in ${id}`);
      const { text = '' } = await simpleParser(bytes, { skipTextToHtml: true });
      return {
        ours: judge(id, right, said, rest),
        library: judge(id, right, new EmailReplyParser().parseReply(text), null),
      };
    }),
  );
  return { ours: read.map(({ ours }) => ours), library: read.map(({ library }) => library) };
};

/** How many were kept whole, and of how many in which something was quoted that was cut. */
export const counted = (found: readonly Found[]) => ({
  mails: found.length,
  kept: found.filter(({ isKept }) => isKept).length,
  quoting: found.filter(({ isCut }) => isCut !== null).length,
  cut: found.filter(({ isCut }) => isCut).length,
});
