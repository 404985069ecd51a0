import { type ParsedMail, simpleParser } from 'mailparser';
import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';

/** A mail server that takes everything, or answers as a test says. */
export const openPost = async () => {
  const mails: (ParsedMail & { envelopeTo: string[] })[] = [];
  const answers: number[] = [];
  const lost: number[] = [];
  const held: (() => void)[] = [];
  const slow = { isOn: false };
  let began = 0;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    logger: false,
    onAuth: ({ username, password }, _session, done) =>
      done(username === 'maren' && password === 'right' ? null : new Error('no'), {
        user: username,
      }),
    onData: async (stream, session, done) => {
      began += 1;
      const answer = answers.shift();
      const mail = await simpleParser(stream);
      if (answer) return done(Object.assign(new Error('not now'), { responseCode: answer }));
      mails.push({ ...mail, envelopeTo: session.envelope.rcptTo.map(({ address }) => address) });
      const unheard = lost.shift();
      const end = () =>
        done(unheard ? Object.assign(new Error('lost'), { responseCode: unheard }) : null);
      if (slow.isOn) held.push(end);
      else end();
    },
  });
  const port = await new Promise<number>((resolve) => {
    const listening = server.listen(0, '127.0.0.1', () =>
      resolve((listening.address() as { port: number }).port),
    );
  });
  return {
    mails,
    answers,
    /** What it says of mails that it has taken all the same, as if its answer were lost on the way. */
    lost,
    /** Whether it takes its time to say that it has a mail; how many it was handed; and it says so now. */
    slow,
    began: (): number => began,
    release: (): void => {
      for (const end of held.splice(0)) end();
    },
    port,
    outgoing: {
      host: '127.0.0.1',
      port,
      security: 'none',
      user: '',
      from: 'hello@quillfern.example',
    },
    close: (): Promise<void> => {
      for (const end of held.splice(0)) end();
      return new Promise((resolve) => server.close(() => resolve()));
    },
  };
};

export type Post = Awaited<ReturnType<typeof openPost>>;

export interface Letter {
  from?: string;
  envelopeFrom?: string;
  to: string;
  text?: string;
  html?: string;
  subject?: string;
  messageId?: string;
  inReplyTo?: string;
  headers?: Record<string, string>;
  attachments?: { filename: string; content: Buffer }[];
  raw?: string | Buffer;
}

/** Hands a mail to a server as any other server would; gives what it said. */
export const post = async (port: number, letter: Letter): Promise<string> => {
  const { envelopeFrom, from = 'maren@quillfern.example', to, ...rest } = letter;
  const transport = createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
  const envelope = { from: envelopeFrom ?? from, to };
  try {
    return (await transport.sendMail({ from, to, subject: 'Re: waits', envelope, ...rest }))
      .response;
  } catch (error) {
    return String((error as { response?: string; message: string }).response ?? error);
  } finally {
    transport.close();
  }
};

/** What a server writes of a mail that it could not bring to somebody (RFC 3464, 2). */
export const deliveryReport = (to: string, recipient: string): string =>
  [
    'From: MAILER-DAEMON@post.example',
    `To: ${to}`,
    'Message-ID: <bounce@post.example>',
    'Content-Type: multipart/report; report-type=delivery-status; boundary="b"',
    '',
    '--b',
    'Content-Type: text/plain',
    '',
    'It could not be delivered.',
    '--b',
    'Content-Type: message/delivery-status',
    '',
    'Reporting-MTA: dns; post.example',
    '',
    `Final-Recipient: rfc822; ${recipient}`,
    'Action: failed',
    'Status: 5.1.1',
    '--b--',
    '',
  ].join('\r\n');
