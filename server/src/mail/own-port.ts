import { MAIL_LARGEST_BYTES } from '@porch/contract/mail';
import type { SMTPServer, SMTPServerDataStream, SMTPServerSession } from 'smtp-server';
import { addressKey } from '../security/addresses';
import type { Buckets } from '../security/bucket';
import type { MailTaking } from './taking';

const CONNECTIONS_MOST = 50;
const RECIPIENTS_MOST = 5;
const SILENCE_LONGEST_MS = 60_000;
/** So many mails are read at the same time; a whole one is in memory while it is. */
const READ_AT_ONCE = 3;

/** A refusal in the words of RFC 5321 (4.2.3) and RFC 3463. */
const no = (code: number, said: string): Error =>
  Object.assign(new Error(said), { responseCode: code });

/** All that comes, or null where it is more than is taken in; what is too much is not kept while it comes. */
const readWhole = async (stream: SMTPServerDataStream): Promise<Buffer | null> => {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of stream) {
    bytes += (chunk as Buffer).length;
    if (bytes <= MAIL_LARGEST_BYTES) chunks.push(chunk as Buffer);
    else chunks.length = 0;
  }
  return bytes > MAIL_LARGEST_BYTES ? null : Buffer.concat(chunks);
};

/**
 * A port of our own for mail (RFC 5321): only answers to our alerts are taken, so that nothing is ever passed on to
 * somebody else's server. A mail is taken only once what comes of it is on disk.
 */
export const createMailPort = (services: {
  taking: MailTaking;
  /** How often an address may hand over a mail. */
  limit: Buckets;
  report: (error: unknown) => void;
}) => {
  const { taking, limit, report } = services;
  let reading = 0;

  const take = async (stream: SMTPServerDataStream, session: SMTPServerSession): Promise<void> => {
    const { mailFrom, rcptTo } = session.envelope;
    if (reading >= READ_AT_ONCE) {
      stream.resume();
      throw no(451, '4.3.2 Too much at once, try again later');
    }
    reading += 1;
    try {
      const bytes = await readWhole(stream);
      if (!bytes) throw no(552, '5.3.4 The message is too large');
      const from = mailFrom ? mailFrom.address : '';
      const came = await taking.take(bytes, { from, to: rcptTo.map(({ address }) => address) });
      if (came === 'nobodys') throw no(550, '5.7.1 It does not say who wrote it');
    } finally {
      reading -= 1;
    }
  };

  const build = async () => {
    const { SMTPServer } = await import('smtp-server');
    return new SMTPServer({
      name: 'hello-porch',
      banner: 'Hello Porch',
      authOptional: true,
      // Nobody signs in here, and nothing is encrypted that has no certificate: see docs/doorbell.md.
      disabledCommands: ['AUTH', 'STARTTLS'],
      size: MAIL_LARGEST_BYTES,
      maxClients: CONNECTIONS_MOST,
      socketTimeout: SILENCE_LONGEST_MS,
      closeTimeout: 1_000,
      disableReverseLookup: true,
      logger: false,
      onMailFrom: (_address, session, done) => {
        const waitMs = limit.take(addressKey(session.remoteAddress));
        done(waitMs > 0 ? no(451, '4.7.1 Too many mails, try again later') : undefined);
      },
      onRcptTo: ({ address }, session, done) => {
        if (session.envelope.rcptTo.length >= RECIPIENTS_MOST)
          return done(no(452, '4.5.3 Too many recipients'));
        done(
          taking.isOurs(address) ? undefined : no(550, '5.1.1 Nobody is reached by this address'),
        );
      },
      onData: (stream, session, done) => {
        take(stream, session).then(
          () => done(),
          (error: Error & { responseCode?: number }) => {
            if (error.responseCode) return done(error);
            report(error);
            done(no(451, '4.3.0 This cannot be taken now, try again later'));
          },
        );
      },
    });
  };

  let server: SMTPServer | null = null;

  return {
    /** Begins to take mail; gives the port on which it does. */
    listen: async (port: number, host: string): Promise<number> => {
      const opened = await build();
      server = opened;
      return new Promise((resolve, reject) => {
        opened.once('error', reject);
        const listening = opened.listen(port, host, () => {
          opened.off('error', reject);
          opened.on('error', report);
          resolve((listening.address() as { port: number }).port);
        });
      });
    },
    close: (): Promise<void> =>
      new Promise((resolve) => {
        if (server) server.close(() => resolve());
        else resolve();
      }),
  };
};

export type MailPort = ReturnType<typeof createMailPort>;
