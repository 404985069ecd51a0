import { promises as dns, lookup } from 'node:dns';
import { Agent as HttpAgent, request as httpRequest, type IncomingMessage } from 'node:http';
import { Agent as HttpsAgent, request as httpsRequest } from 'node:https';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/** Turns a name into addresses; `dns.lookup` in the form in which sockets ask for it. */
export type Resolve = LookupFunction;

/** Finds on which hosts a service of a domain is (RFC 2782); `dns.resolveSrv`. */
export type ResolveService = (
  name: string,
) => Promise<readonly { name: string; port: number; priority: number }[]>;

/**
 * Whether an address is one of the open internet: not of this machine, of the network that it stands in, or of
 * a range that stands for one of these (RFC 6890). "192.168.1.9" → false, "::ffff:10.0.0.1" → false.
 */
export const isOutside = (address: string): boolean => {
  if (!ipaddr.isValid(address)) return false;
  // An IPv4 address in IPv6 form is that address.
  return ipaddr.process(address).range() === 'unicast';
};

/** A name's own brackets: "[::1]" → "::1". */
const bare = (host: string): string => host.replace(/^\[|\]$/g, '');

const isNameOfHere = (host: string): boolean =>
  host === '' || /(^|\.)(localhost|local|internal|lan|home\.arpa)\.?$/i.test(host);

/** Whether a page opens elsewhere than in the network that we stand in, as far as its origin tells. */
export const opensAnywhere = (origin: string): boolean => {
  const host = bare(new URL(origin).hostname);
  if (ipaddr.isValid(host)) return isOutside(host);
  return host.includes('.') && !isNameOfHere(host);
};

/**
 * Whether something may be asked of an address that somebody gave: https, by its usual port, on the open internet as
 * far as its name tells. `allowed`: origins that may be asked besides, as they are.
 */
export const mayAsk = (address: string, allowed: readonly string[]): boolean => {
  if (!URL.canParse(address)) return false;
  const { protocol, port, hostname, username, password, origin } = new URL(address);
  if (username || password) return false;
  if (allowed.includes(origin)) return true;
  if (protocol !== 'https:' || port !== '' || isNameOfHere(hostname)) return false;
  const host = bare(hostname);
  return !ipaddr.isValid(host) || isOutside(host);
};

/** A name that leads into the network that we stand in. */
export class LeadsInside extends Error {
  constructor() {
    super('leads-inside');
  }
}

/**
 * Resolves names for sockets, and fails where any of the addresses is not on the open internet: what is asked is
 * what is connected to, so that a name that answers otherwise the next time gains nothing.
 */
export const outsideOnly =
  (resolve: Resolve): Resolve =>
  (hostname, options, done) =>
    resolve(hostname, { ...options, all: true }, (error, addresses) => {
      if (error) return done(error, [], 0);
      const found = Array.isArray(addresses) ? addresses : [];
      if (found.length === 0 || !found.every(({ address }) => isOutside(address))) {
        return done(new LeadsInside() as NodeJS.ErrnoException, [], 0);
      }
      const [first] = found;
      if (options.all || !first) return done(null, found);
      return done(null, first.address, first.family);
    });

/** What is asked of somebody outside. */
export interface Asked {
  method: string;
  address: string;
  headers: Readonly<Record<string, string | number>>;
  body?: string | Buffer;
  /** So much of the answer is read. */
  largestBytes: number;
  signal: AbortSignal;
}

export interface Answered {
  status: number;
  headers: IncomingMessage['headers'];
  /** As much of it as was asked for. */
  body: Buffer;
  /** There was more. */
  isCut: boolean;
}

const SOCKETS_OF_A_HOST = 16;
const IDLE_LONGEST_MS = 30_000;

const read = async (answer: IncomingMessage, largestBytes: number): Promise<Answered> => {
  const chunks: Buffer[] = [];
  let bytes = 0;
  answer.on('error', () => undefined);
  for await (const chunk of answer) {
    bytes += (chunk as Buffer).length;
    chunks.push(chunk as Buffer);
    if (bytes > largestBytes) break;
  }
  return {
    status: answer.statusCode ?? 0,
    headers: answer.headers,
    body: Buffer.concat(chunks).subarray(0, largestBytes),
    isCut: bytes > largestBytes,
  };
};

/**
 * Asks things of the open internet, and of nothing that stands in the network around us. Redirects are not followed:
 * where to ask is for whoever gave the address to say.
 */
export const createOutside = (services: {
  allowed: readonly string[];
  resolve?: Resolve;
  resolveService?: ResolveService;
}) => {
  const { allowed, resolve = lookup as Resolve, resolveService = dns.resolveSrv } = services;
  const kept = { keepAlive: true, maxSockets: SOCKETS_OF_A_HOST, timeout: IDLE_LONGEST_MS };
  const outside = new HttpsAgent({ ...kept, lookup: outsideOnly(resolve) });
  const near = new HttpAgent({ ...kept, lookup: resolve });

  const answerTo = ({ method, address, headers, body, signal }: Asked): Promise<IncomingMessage> =>
    new Promise((answered, failed) => {
      const isNear = allowed.includes(new URL(address).origin);
      const isPlain = isNear && address.startsWith('http:');
      const ask = isPlain ? httpRequest : httpsRequest;
      const agent = isPlain ? near : isNear ? undefined : outside;
      const asked = ask(address, { method, headers, agent, signal }, answered);
      asked.on('error', failed);
      asked.end(body);
    });

  /** The address that a name has now. */
  const addressOf = (name: string, by: Resolve): Promise<string> =>
    new Promise((found, failed) => {
      by(name, { all: false }, (error, address) => {
        if (error) return failed(error);
        found(Array.isArray(address) ? (address[0]?.address ?? '') : address);
      });
    });

  return {
    may: (address: string): boolean => mayAsk(address, allowed),
    /**
     * To which address to connect for what is not asked by http: what was looked at is what is connected to. `origin`:
     * how it would stand among what is allowed though it is not outside. Fails with `LeadsInside`, and as names do that
     * nobody knows.
     */
    whereIs: async (
      host: string,
      origin: string,
    ): Promise<{ address: string; isNear: boolean }> => {
      const name = bare(host);
      const isNear = allowed.includes(origin);
      if (!isNear && (isNameOfHere(name) || (ipaddr.isValid(name) && !isOutside(name)))) {
        throw new LeadsInside();
      }
      if (ipaddr.isValid(name)) return { address: name, isNear };
      return { address: await addressOf(name, isNear ? resolve : outsideOnly(resolve)), isNear };
    },
    /** Where a domain says that a service of it is; null: it says nothing. */
    serviceAt: async (service: string): Promise<{ host: string; port: number } | null> => {
      const found = await resolveService(service).catch(() => []);
      const first = [...found].sort((a, b) => a.priority - b.priority)[0];
      return first ? { host: first.name, port: first.port } : null;
    },
    /** Fails with `LeadsInside` where a name leads inside, and as sockets do where nobody answers. */
    ask: async (what: Asked): Promise<Answered> => {
      // Names and rules change: what was allowed when an address was given is looked at again.
      if (!mayAsk(what.address, allowed)) throw new LeadsInside();
      return read(await answerTo(what), what.largestBytes);
    },
    end: (): void => {
      outside.destroy();
      near.destroy();
    },
  };
};

export type Outside = ReturnType<typeof createOutside>;
