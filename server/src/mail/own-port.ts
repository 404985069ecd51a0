import { MAIL_LARGEST_BYTES } from '@porch/contract/mail';
import type { SMTPServer, SMTPServerDataStream, SMTPServerSession } from 'smtp-server';
import type { Clock } from '../clock';
import { addressKey } from '../security/addresses';
import type { Buckets } from '../security/bucket';
import { createConnections } from '../security/connections';
import type { MailTaking } from './taking';

const CONNECTIONS_MOST = 100;
/** Of those so many are for whoever has handed over good mails before: strangers never take all of them. */
const CONNECTIONS_FOR_KNOWN = 30;
/** A mail server opens several at once; one address has no more. */
const CONNECTIONS_OF_ONE = 10;
const RECIPIENTS_MOST = 5;
const SILENCE_LONGEST_MS = 60_000;
/** So long handing over one mail may take, however slowly it comes (RFC 5321, 4.5.3.2, waits three minutes a block). */
const DATA_LONGEST_MS = 5 * 60_000;
/** What all that come at the same time have in memory, and what one address has of it. */
const HELD_MOST_BYTES = 192 * 1024 * 1024;
const HELD_OF_ONE_BYTES = 2 * MAIL_LARGEST_BYTES;
/** So many addresses are remembered that wrote well. */
const KNOWN_MOST = 5_000;

/** A refusal in the words of RFC 5321 (4.2.3) and RFC 3463. */
const no = (code: number, said: string): Error =>
  Object.assign(new Error(said), { responseCode: code });

/** Counts bytes in memory, of all and of each address. */
const createHeld = () => {
  const of = new Map<string, number>();
  let all = 0;
  return {
    /** Whether there is room for so many more of an address; takes it where there is. */
    take: (key: string, bytes: number): boolean => {
      const theirs = (of.get(key) ?? 0) + bytes;
      if (theirs > HELD_OF_ONE_BYTES || all + bytes > HELD_MOST_BYTES) return false;
      of.set(key, theirs);
      all += bytes;
      return true;
    },
    give: (key: string, bytes: number): void => {
      const left = (of.get(key) ?? 0) - bytes;
      if (left > 0) of.set(key, left);
      else of.delete(key);
      all -= bytes;
    },
  };
};

/** Who has written well before, the latest last. */
const createKnown = () => {
  const known = new Set<string>();
  return {
    has: (key: string): boolean => known.has(key),
    add: (key: string): void => {
      known.delete(key);
      known.add(key);
      if (known.size <= KNOWN_MOST) return;
      for (const oldest of known) {
        known.delete(oldest);
        return;
      }
    },
  };
};

/**
 * A port of our own for mail (RFC 5321): only answers to our alerts are taken, so that nothing is ever passed on to
 * somebody else's server. A mail is taken only once what comes of it is on disk. What one address holds (connections,
 * memory) counts for it alone, and ends with its connection.
 */
export const createMailPort = (services: {
  taking: MailTaking;
  /** How often an address may hand over a mail. */
  limit: Buckets;
  clock: Clock;
  report: (error: unknown) => void;
}) => {
  const { taking, limit, clock, report } = services;
  const connections = createConnections(CONNECTIONS_OF_ONE);
  const held = createHeld();
  const known = createKnown();
  /** By session, what ends with it. */
  const open = new Map<string, { close: () => void; ending: AbortController }>();
  const ofStrangers = new Set<string>();

  const keyOf = ({ remoteAddress }: SMTPServerSession): string => addressKey(remoteAddress);

  /**
   * All that comes, or why it is not taken; what is too much is not kept while it comes. Ends with its connection: a
   * client that is cut off never ends what it was saying.
   */
  const readWhole = (stream: SMTPServerDataStream, key: string, signal: AbortSignal) =>
    new Promise<{ bytes: Buffer; free: () => void }>((resolve, reject) => {
      const chunks: Buffer[] = [];
      const beganAt = clock.steady();
      let bytes = 0;
      let problem: Error | null = null;
      const free = (): void => {
        held.give(key, bytes);
        bytes = 0;
        chunks.length = 0;
      };
      const end = (error: Error): void => {
        free();
        reject(error);
      };
      const refuse = (error: Error): void => {
        free();
        problem = error;
      };
      stream.on('data', (chunk: Buffer) => {
        if (problem) return;
        if (clock.steady() - beganAt > DATA_LONGEST_MS) {
          return refuse(no(451, '4.4.2 That took too long, try again later'));
        }
        if (bytes + chunk.length > MAIL_LARGEST_BYTES) {
          return refuse(no(552, '5.3.4 The message is too large'));
        }
        if (!held.take(key, chunk.length)) {
          return refuse(no(451, '4.3.2 Too much at once, try again later'));
        }
        bytes += chunk.length;
        chunks.push(chunk);
      });
      stream.on('end', () =>
        problem ? end(problem) : resolve({ bytes: Buffer.concat(chunks), free }),
      );
      stream.on('error', end);
      signal.addEventListener('abort', () => end(no(451, '4.4.2 The connection was cut')));
    });

  const take = async (stream: SMTPServerDataStream, session: SMTPServerSession): Promise<void> => {
    const { mailFrom, rcptTo } = session.envelope;
    const signal = open.get(session.id)?.ending.signal ?? AbortSignal.abort();
    const key = keyOf(session);
    const { bytes, free } = await readWhole(stream, key, signal);
    try {
      const from = mailFrom ? mailFrom.address : '';
      const to = rcptTo.map(({ address }) => address);
      const came = await taking.take(bytes, { from, to, by: key });
      if (came === 'nobodys')
        throw no(550, '5.7.1 It answers nothing of ours, or does not say who wrote it');
      if (came === null) known.add(key);
    } finally {
      free();
    }
  };

  /** Lets a connection in, or says why not; what it holds is given back when it ends, however it does. */
  const letIn = (session: SMTPServerSession): Error | null => {
    const key = keyOf(session);
    const isKnown = known.has(key);
    const strangersMost = CONNECTIONS_MOST - CONNECTIONS_FOR_KNOWN;
    if (
      connections.isFull(session.remoteAddress) ||
      (!isKnown && ofStrangers.size >= strangersMost)
    ) {
      return no(421, '4.3.2 Too many connections, try again later');
    }
    const close = connections.add(session.remoteAddress);
    open.set(session.id, { close, ending: new AbortController() });
    if (!isKnown) ofStrangers.add(session.id);
    return null;
  };

  const letOut = ({ id }: SMTPServerSession): void => {
    const one = open.get(id);
    open.delete(id);
    ofStrangers.delete(id);
    one?.close();
    one?.ending.abort();
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
      onConnect: (session, done) => done(letIn(session)),
      onClose: letOut,
      onMailFrom: (_address, session, done) => {
        const waitMs = limit.take(addressKey(session.remoteAddress));
        done(waitMs > 0 ? no(451, '4.7.1 Too many mails, try again later') : undefined);
      },
      onRcptTo: ({ address }, session, done) => {
        if (session.envelope.rcptTo.length >= RECIPIENTS_MOST)
          return done(no(452, '4.5.3 Too many recipients'));
        const isOurs = taking.isOurs(address) || taking.isPlain(address);
        done(isOurs ? undefined : no(550, '5.1.1 Nobody is reached by this address'));
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
