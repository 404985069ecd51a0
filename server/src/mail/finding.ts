import { Resolver } from 'node:dns/promises';
import { connect } from 'node:net';
import { connect as connectByTls } from 'node:tls';
import type { MailFound } from '@porch/contract/mail';
import { toEmail } from '@porch/core/contact';
import {
  guessedServers,
  type MailServer,
  type MailWay,
  mailServices,
} from '@porch/core/mail/servers';
import { Refused } from '../refused';

/** What fails has nothing. */
const orNothing = <One>(asked: Promise<readonly One[]>): Promise<readonly One[]> =>
  asked.catch(() => []);

/** So long a server may take to show that it is there. */
const REACH_LONGEST_MS = 5_000;

/** What is asked to find mail servers. */
export interface MailAsking {
  /** Where a service of a domain is (RFC 2782). */
  services: (name: string) => Promise<readonly { name: string; port: number; priority: number }[]>;
  /** Who takes a domain's mail (RFC 5321, 5). */
  exchangers: (domain: string) => Promise<readonly { exchange: string; priority: number }[]>;
  /** Whether a mail server answers there, with a certificate that is good for its name where it begins encrypted. */
  reaches: (server: MailServer) => Promise<boolean>;
}

/**
 * Asks name servers without keeping any thread waiting: two dozen names that lead nowhere would otherwise hold up
 * whatever else the process does with files and passwords.
 */
const resolver = new Resolver({ timeout: 2_000, tries: 2 });

const addressOf = async (host: string): Promise<string | null> => {
  const [four, six] = await Promise.all([
    orNothing(resolver.resolve4(host)),
    orNothing(resolver.resolve6(host)),
  ]);
  return four[0] ?? six[0] ?? null;
};

/**
 * Whether a mail server answers at an address: one that greets, or that begins with a certificate that is good for its
 * name.
 */
export const answersAt = (
  server: MailServer,
  address: string,
  longestMs = REACH_LONGEST_MS,
): Promise<boolean> =>
  new Promise((resolve) => {
    const { host, port, security } = server;
    const isTls = security === 'tls';
    const socket = isTls
      ? connectByTls({ host: address, port, servername: host })
      : connect({ host: address, port });
    const settle = (isThere: boolean): void => {
      clearTimeout(timer);
      socket.destroy();
      resolve(isThere);
    };
    const timer = setTimeout(settle, longestMs, false);
    socket.once(isTls ? 'secureConnect' : 'data', () => settle(true));
    socket.once('error', () => settle(false));
    socket.once('close', () => settle(false));
  });

/** The world as it is. */
export const askingDns: MailAsking = {
  services: (name) => resolver.resolveSrv(name),
  exchangers: (domain) => resolver.resolveMx(domain),
  reaches: async (server) => {
    const address = await addressOf(server.host);
    return address !== null && answersAt(server, address);
  },
};

const byPriority = <One extends { priority: number }>(found: readonly One[]): One[] =>
  [...found].sort((one, other) => one.priority - other.priority);

/** A domain without a service says so by a target of "." (RFC 6186, 3.4). */
const isNamed = ({ name }: { name: string }): boolean => name !== '' && name !== '.';

/**
 * Finds the mail servers of an address: what its domain says (RFC 6186), and else where they are by habit. Nothing is
 * signed in to: whoever has the password looks at what was found first (RFC 6186, 3).
 */
export const findMailServers = async (
  typed: string,
  { services, exchangers, reaches }: MailAsking = askingDns,
): Promise<MailFound> => {
  const address = toEmail(typed);
  if (!address) throw new Refused('email-not-understood', { field: 'address' });
  const domain = address.slice(address.lastIndexOf('@') + 1).toLowerCase();

  const said = async (way: MailWay): Promise<MailServer[]> => {
    const found = await Promise.all(
      mailServices(way, domain).map(async ({ name, security }) =>
        byPriority(await orNothing(services(name)))
          .filter(isNamed)
          .map((one): MailServer => ({ host: one.name, port: one.port, security })),
      ),
    );
    return found.flat();
  };

  const taking = orNothing(exchangers(domain)).then((found) =>
    byPriority(found).map(({ exchange }) => exchange.toLowerCase()),
  );

  const find = async (way: MailWay): Promise<MailServer | null> => {
    const told = await said(way);
    const servers = told.length > 0 ? told : guessedServers(way, domain, await taking);
    const isThere = await Promise.all(servers.map(reaches));
    return servers.find((_server, at) => isThere[at]) ?? null;
  };

  const [outgoing, incoming] = await Promise.all([find('out'), find('in')]);
  return { address, outgoing, incoming };
};
