import type { IncomingHttpHeaders } from 'node:http';
import type { Settings } from '../settings';
import { isOutside } from './outside';

type Reached = Pick<Settings, 'publicOrigin' | 'trustProxy'>;

/** Whether people reach the house over TLS, which always ends at a proxy before it. */
export const isOverTls = ({ publicOrigin }: Pick<Settings, 'publicOrigin'>): boolean =>
  publicOrigin?.startsWith('https:') ?? false;

/** What is wrong with how the house is told of the proxies before it, for whoever looks after the server. */
export type ProxyProblem = 'missing' | 'came-without' | 'too-many';

export const proxyDetails: Readonly<Record<ProxyProblem, string>> = {
  missing:
    'PUBLIC_ORIGIN is https, so a proxy stands in front of this house, but TRUST_PROXY is not set. ' +
    'Set TRUST_PROXY=1 (or as many proxies as there are) and start it again.',
  'came-without':
    'A request came by a proxy (X-Forwarded-For), but TRUST_PROXY is not set, so all visitors are one address. ' +
    'Set TRUST_PROXY=1 (or as many proxies as there are) and start it again.',
  'too-many':
    'A request came by fewer proxies than TRUST_PROXY says. Until it is set to as many as there are, no more of them are ' +
    'believed than were seen.',
};

const addressesIn = (header: string | string[] | undefined): string[] =>
  [header ?? []]
    .flat()
    .join(',')
    .split(',')
    .map((address) => address.trim())
    .filter(Boolean);

/**
 * Watches whether requests come by as many proxies as was said. Each proxy adds an address to `X-Forwarded-For`, so what
 * somebody asks from the open internet has no fewer addresses there than there are proxies. Whoever is in the house's own
 * network may reach an inner proxy directly: nothing follows from that. Only what comes from this machine or network is
 * looked at, for anybody else may write the header themselves.
 */
export const createProxyWatch = (
  settings: Reached,
  say: (problem: ProxyProblem) => void = () => undefined,
) => {
  const { trustProxy } = settings;
  const isWrongFromStart = isOverTls(settings) && trustProxy === false;
  let problem: ProxyProblem | null = isWrongFromStart ? 'missing' : null;
  let believed = typeof trustProxy === 'number' ? trustProxy : 0;

  const note = (found: ProxyProblem): void => {
    if (problem === found) return;
    problem = found;
    say(found);
  };

  return {
    problem: (): ProxyProblem | null => problem,
    /** By Fastify's own setting: whether the word of an address that is so many hops away is taken. */
    trust:
      typeof trustProxy === 'number'
        ? (_address: string, hop: number): boolean => hop < believed
        : trustProxy,
    /** Looks at a request before anything is believed of it. */
    look: (headers: IncomingHttpHeaders, from: string | undefined): void => {
      if (Array.isArray(trustProxy) || from === undefined || isOutside(from)) return;
      const addresses = addressesIn(headers['x-forwarded-for']);
      if (addresses.length === 0) return;
      if (trustProxy === false) {
        if (problem === null) note('came-without');
      } else if (addresses.length < believed && isOutside(addresses[0] ?? '')) {
        believed = addresses.length;
        note('too-many');
      }
    },
  };
};

export type ProxyWatch = ReturnType<typeof createProxyWatch>;

/** A host as it stands in an address: "::1" → "[::1]". */
export const hostInAddress = (host: string): string => (host.includes(':') ? `[${host}]` : host);
