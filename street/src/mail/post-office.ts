import type { ParsedMail } from 'mailparser';
import { SMTPServer } from 'smtp-server';

/**
 * A mail server as RFC 5321 describes it, with a mailbox for every address, and people who answer from them as from
 * any mail program. Its faults are those that real ones have.
 */
export const mailFaults = [
  'none',
  'refused',
  'slow',
  'greylisting',
  'bounce',
  'out-of-office',
] as const;
export type MailFault = (typeof mailFaults)[number];

export interface BoxedMail {
  id: number;
  at: number;
  to: string;
  from: string;
  /** Where an answer goes. */
  replyTo: string;
  subject: string;
  text: string;
  html: string | null;
  messageId: string | null;
  /** Where it is told that it did not arrive (RFC 5321, 4.4); '' nowhere. */
  returnPath: string;
}

/** A mail that answers nothing. */
export interface NewMail {
  from: string;
  to: string;
  subject: string;
  text: string;
  html?: string;
  kind: 'person' | 'list' | 'pictures';
}

const KEPT_MOST = 200;
const SLOW_MS = 8_000;
const GREYLISTED_MS = 1_000;

const later = (ms: number): Promise<void> =>
  new Promise((resolve) => {
    setTimeout(resolve, ms).unref();
  });

const no = (code: number, said: string): Error =>
  Object.assign(new Error(said), { responseCode: code });

const addressIn = (field: ParsedMail['from']): string => field?.value[0]?.address ?? '';

const toBoxed = (
  { id, to, at }: Pick<BoxedMail, 'id' | 'to' | 'at'>,
  mail: ParsedMail,
  returnPath: string,
): BoxedMail => ({
  id,
  at,
  to,
  from: addressIn(mail.from),
  replyTo: addressIn(mail.replyTo) || addressIn(mail.from),
  subject: mail.subject ?? '',
  text: mail.text ?? '',
  html: mail.html || null,
  messageId: mail.messageId ?? null,
  returnPath,
});

/** What a server writes of a mail that it could not deliver (RFC 3464, 2). */
const reportOf = ({ to, returnPath, subject }: BoxedMail): string =>
  [
    `From: MAILER-DAEMON@${to.split('@')[1]}`,
    `To: ${returnPath}`,
    'Subject: Undelivered mail returned to sender',
    'Auto-Submitted: auto-replied',
    'MIME-Version: 1.0',
    'Content-Type: multipart/report; report-type=delivery-status; boundary="part"',
    '',
    '--part',
    'Content-Type: text/plain; charset=utf-8',
    '',
    `“${subject}” could not be delivered: ${to} does not exist here.`,
    '--part',
    'Content-Type: message/delivery-status',
    '',
    `Reporting-MTA: dns; ${to.split('@')[1]}`,
    '',
    `Final-Recipient: rfc822; ${to}`,
    'Action: failed',
    'Status: 5.1.1',
    '--part--',
    '',
  ].join('\r\n');

/** As mail programs do it: the words, then what they answer with a sign before each line. */
export const quoting = (words: string, { text, from, at }: BoxedMail): string => {
  const quoted = text
    .trimEnd()
    .split('\n')
    .map((line) => `> ${line}`)
    .join('\n');
  return `${words}\n\nOn ${new Date(at).toUTCString()}, ${from} wrote:\n\n${quoted}\n`;
};

export const createPostOffice = (options: {
  now: () => number;
  /** Where answers are handed over. */
  porchMailPort: () => number;
}) => {
  const { now, porchMailPort } = options;
  const faultOf = new Map<string, MailFault>();
  const greylisted = new Map<string, number>();
  let mails: BoxedMail[] = [];
  let count = 0;

  const hand = async (letter: {
    from: string;
    to: string;
    subject?: string;
    text?: string;
    html?: string;
    raw?: string;
    envelopeFrom?: string;
    inReplyTo?: string | null;
    headers?: Record<string, string>;
  }): Promise<string> => {
    const { envelopeFrom, inReplyTo, ...mail } = letter;
    const { createTransport } = await import('nodemailer');
    const transport = createTransport({
      host: '127.0.0.1',
      port: porchMailPort(),
      ignoreTLS: true,
    });
    const envelope = { from: envelopeFrom ?? mail.from, to: mail.to };
    const thread = inReplyTo ? { inReplyTo, references: inReplyTo } : {};
    try {
      return (await transport.sendMail({ ...mail, ...thread, envelope })).response;
    } catch (error) {
      const { response, message } = error as { response?: string; message: string };
      return response ?? message;
    } finally {
      transport.close();
    }
  };

  const back = (mail: BoxedMail, what: 'bounce' | 'out-of-office'): Promise<string> =>
    what === 'bounce'
      ? hand({
          from: `MAILER-DAEMON@${mail.to.split('@')[1]}`,
          envelopeFrom: '',
          to: mail.returnPath,
          raw: reportOf(mail),
        })
      : hand({
          from: mail.to,
          to: mail.replyTo,
          subject: `Away: ${mail.subject}`,
          text: 'I am away until Monday.',
          inReplyTo: mail.messageId,
          headers: { 'Auto-Submitted': 'auto-replied' },
        });

  /** What a mailbox's fault makes of a mail before it is taken; throws what the server says then. */
  const obstruct = async (fault: MailFault, to: string): Promise<void> => {
    if (fault === 'slow') await later(SLOW_MS);
    if (fault === 'refused') throw no(550, '5.1.1 There is no such mailbox');
    if (fault !== 'greylisting') return;
    const since = greylisted.get(to) ?? now();
    greylisted.set(to, since);
    if (now() - since < GREYLISTED_MS) throw no(451, '4.7.1 Greylisted, try again later');
  };

  const take = async (
    mail: ParsedMail,
    recipients: readonly string[],
    returnPath: string,
  ): Promise<void> => {
    for (const to of recipients) {
      const fault = faultOf.get(to) ?? 'none';
      await obstruct(fault, to);
      count += 1;
      const boxed = toBoxed({ id: count, to, at: now() }, mail, returnPath);
      mails = [...mails, boxed].slice(-KEPT_MOST);
      if (fault === 'bounce' || fault === 'out-of-office') void back(boxed, fault);
    }
  };

  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    disableReverseLookup: true,
    logger: false,
    // Whoever signs in here may.
    onAuth: ({ username }, _session, done) => done(null, { user: username }),
    onData: (stream, session, done) => {
      import('mailparser')
        .then(({ simpleParser }) => simpleParser(stream))
        .then((mail) =>
          take(
            mail,
            session.envelope.rcptTo.map(({ address }) => address.toLowerCase()),
            session.envelope.mailFrom ? session.envelope.mailFrom.address : '',
          ),
        )
        .then(
          () => done(),
          (error) => done(error),
        );
    },
  });
  server.on('error', () => undefined);

  return {
    boxes: (): string[] => [...new Set([...mails.map(({ to }) => to), ...faultOf.keys()])].sort(),
    mails: (to: string): BoxedMail[] => mails.filter((mail) => mail.to === to),
    byId: (id: number): BoxedMail | null => mails.find((mail) => mail.id === id) ?? null,
    faultOf: (to: string): MailFault => faultOf.get(to) ?? 'none',
    setFault: (to: string, fault: MailFault): void => {
      faultOf.set(to, fault);
      greylisted.delete(to);
    },
    /** Answers a mail as its reader would; gives what the server there said. */
    answer: (mail: BoxedMail, words: string, from = mail.to): Promise<string> =>
      hand({
        from,
        to: mail.replyTo,
        subject: /^re:/i.test(mail.subject) ? mail.subject : `Re: ${mail.subject}`,
        text: quoting(words, mail),
        inReplyTo: mail.messageId,
      }),
    /** Somebody writes a mail of their own; gives what the server there said. */
    write: ({ kind, ...letter }: NewMail): Promise<string> =>
      hand({
        ...letter,
        ...(kind === 'list' ? { headers: { 'List-Id': '<readers.street.example>' } } : {}),
      }),
    /** Gives the port on which it takes mail; 0 asks for any. */
    listen: (port: number): Promise<number> =>
      new Promise((resolve, reject) => {
        server.once('error', reject);
        const listening = server.listen(port, '127.0.0.1', () =>
          resolve((listening.address() as { port: number }).port),
        );
      }),
    close: (): Promise<void> => new Promise((resolve) => server.close(() => resolve())),
  };
};

export type PostOffice = ReturnType<typeof createPostOffice>;
