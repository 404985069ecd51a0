import { type Client, client, type Element, xml } from '@xmpp/client';
import { JobFailed } from '../../jobs/worker';
import { LeadsInside, type Outside } from '../../security/outside';
import { domainOf } from './addresses';
import { ns } from './stanzas';

/** What a server takes longer to answer is not answered. */
const ANSWER_LONGEST_MS = 15_000;
const OPENING_LONGEST_MS = 30_000;
/** So long a server may take to hang up, each of its two times. */
const GOODBYE_LONGEST_MS = 1_000;

/** Nothing that is said at once is longer, in bytes or letters; who goes on for ever is no server. */
const STANZA_LONGEST = 2_000_000;

const USUAL_PORT = 5222;

/** How somebody signs in. */
export interface SignIn {
  /** Whose address it is, without a device. */
  address: string;
  password: string;
  /** Where its server is, as "host:port"; '' where its name says that. */
  server: string;
  /** Under which name this connection is known there. */
  resource: string;
}

/** The connection was not encrypted, and would have had to be. */
class Unencrypted extends Error {}

const whyOf = (error: unknown): JobFailed => {
  if (error instanceof JobFailed) return error;
  if (error instanceof LeadsInside) return new JobFailed('network-inside');
  if (error instanceof Unencrypted) return new JobFailed('network-unencrypted');
  const { name, code } = error as { name?: string; code?: string };
  if (name === 'SASLError') return new JobFailed('key-refused');
  if (code?.startsWith('ERR_TLS') || code?.includes('CERT')) {
    return new JobFailed('network-unencrypted');
  }
  return new JobFailed(name === 'TimeoutError' ? 'network-too-slow' : 'network-unreachable');
};

const hostAndPort = (server: string): { host: string; port: number } | null => {
  const [, host, port] = /^([^\s:/]+|\[[0-9a-f:]+\])(?::(\d{1,5}))?$/i.exec(server) ?? [];
  const number = port === undefined ? USUAL_PORT : Number(port);
  return host && number > 0 && number <= 65_535 ? { host, port: number } : null;
};

/** Whether what an owner says is where a server can be: "chat.post.example:5222". */
export const isServer = (server: string): boolean => hostAndPort(server) !== null;

/**
 * One connection to a messenger's server, signed in (RFC 6120). `onStanza` hears what comes that answers nothing. Fails
 * with a `JobFailed` that says why it cannot be.
 */
export const openSession = async (
  outside: Outside,
  { address, password, server, resource }: SignIn,
  onStanza: (stanza: Element) => void,
) => {
  const domain = domainOf(address);
  const { host, port } = hostAndPort(server) ??
    (await outside.serviceAt(`_xmpp-client._tcp.${domain}`)) ?? { host: domain, port: USUAL_PORT };
  const found = await outside.whereIs(host, `xmpp://${host}:${port}`).catch((error) => {
    throw whyOf(error);
  });
  const at = found.address.includes(':') ? `[${found.address}]` : found.address;

  const service = `xmpp://${at}:${port}`;

  const xmpp: Client = client({
    service,
    domain,
    resource,
    username: address.split('@')[0],
    timeout: ANSWER_LONGEST_MS,
    credentials: async (authenticate, mechanisms, _fast, entity) => {
      const isSafe = entity.isSecure();
      if (!isSafe && !found.isNear) throw new Unencrypted();
      // Unencrypted, the password itself is told nobody; and as nobody nobody writes to the business.
      const usable = mechanisms.filter((one) => one !== 'ANONYMOUS');
      const mechanism = usable.find((one) => isSafe || one !== 'PLAIN');
      if (!mechanism) throw new Unencrypted();
      await authenticate({ username: address.split('@')[0] ?? '', password }, mechanism);
    },
  });
  xmpp.reconnect.stop();
  let problem: unknown = null;
  let isOver = false;
  const ended = new Promise<void>((resolve) => {
    const end = (): void => {
      isOver = true;
      resolve();
    };
    xmpp.on('disconnect', end);
    xmpp.on('offline', end);
  });
  let isStopped = false;
  const stop = (): void => {
    if (isStopped) return;
    isStopped = true;
    const socket = xmpp.socket?.socket ?? xmpp.socket;
    xmpp.timeout = GOODBYE_LONGEST_MS;
    xmpp.stop().catch(() => undefined);
    // What does not hang up by itself is hung up.
    setTimeout(() => socket?.destroy?.(), 2 * GOODBYE_LONGEST_MS).unref();
  };
  let breakNow = (_why: unknown): void => {};
  const broken = new Promise<never>((_, reject) => {
    breakNow = reject;
  });
  broken.catch(() => undefined);
  const break_ = (why: unknown): void => {
    problem ??= why;
    breakNow(why);
    stop();
  };
  // Where to connect was looked at; no server sends us elsewhere, least of all into our own network.
  xmpp._onSeeOtherHost = () => break_(new JobFailed('network-unreachable'));
  xmpp.on('error', (error) => {
    problem ??= error;
    breakNow(error);
  });
  // The library listens to a socket no more once it hangs up; one that breaks then must not end the whole house.
  const attach = xmpp._attachSocket.bind(xmpp);
  xmpp._attachSocket = (socket) => {
    socket.on('error', () => undefined);
    attach(socket);
  };
  // What still comes while it hangs up, and what is no XML at all, must not either.
  const read = xmpp._onData.bind(xmpp);
  let length = 0;
  xmpp.on('element', () => {
    length = 0;
  });
  xmpp._onData = (data) => {
    if (!xmpp.parser) return;
    length += data.length;
    if (length > STANZA_LONGEST) return break_(new JobFailed('network-broken'));
    try {
      read(data);
    } catch (error) {
      break_(error);
    }
  };
  // The library would tell the server that it has a message before that is on disk (XEP-0198).
  xmpp.prependListener('element', (element) => {
    if (element.name === 'stream:features') {
      element.children = element.children.filter(
        (one) => typeof one === 'string' || one.name !== 'sm',
      );
    }
  });
  xmpp.on('stanza', onStanza);

  // Not `start`: what fails there fails a second time, where nobody hears it.
  const online = new Promise<void>((resolve) => xmpp.on('online', resolve));
  const open = async (): Promise<void> => {
    await xmpp.connect(service);
    await xmpp.open({ domain });
    await online;
  };
  const tooLate = new Promise<never>((_, reject) =>
    setTimeout(() => reject(new JobFailed('network-too-slow')), OPENING_LONGEST_MS).unref(),
  );
  try {
    await Promise.race([
      open(),
      tooLate,
      broken,
      ended.then(() => Promise.reject(problem ?? new JobFailed('network-unreachable'))),
    ]);
  } catch (error) {
    stop();
    throw whyOf(problem ?? error);
  }

  const socket = xmpp.socket?.socket ?? xmpp.socket;
  // A letter of several bytes may come in two pieces.
  socket?.setEncoding?.('utf8');

  const ask = (iq: Element): Promise<Element> =>
    xmpp.iqCaller.request(iq, ANSWER_LONGEST_MS).catch((error) => {
      if (error.name === 'StanzaError') throw error;
      throw whyOf(problem ?? error);
    });

  const say = async (stanza: Element): Promise<void> => {
    if (isOver) throw whyOf(problem ?? new JobFailed('network-unreachable'));
    await xmpp.send(stanza).catch((error) => {
      throw whyOf(problem ?? error);
    });
  };

  return {
    domain,
    say,
    /** Asks something, and gives the answer; fails with a `StanzaError` where the answer is no. */
    ask,
    /** Resolves once the server has seen all that was said before: it takes things in turn (RFC 6120, 10.1). */
    taken: async (): Promise<void> => {
      const iq = xml('iq', { type: 'get', to: domain }, xml('ping', { xmlns: ns.ping }));
      await ask(iq).catch((error) => {
        // One that knows no pings has answered all the same.
        if (error.name !== 'StanzaError') throw error;
      });
    },
    /** Nothing more is read for now; it waits at the server. */
    pause: (): void => void socket?.pause?.(),
    resume: (): void => void socket?.resume?.(),
    isOver: (): boolean => isOver,
    /** Resolves when it has ended, with why. */
    ended: ended.then(() => whyOf(problem ?? new JobFailed('network-unreachable'))),
    break: break_,
    stop,
  };
};

export type Session = Awaited<ReturnType<typeof openSession>>;
