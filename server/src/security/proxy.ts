import type { Settings } from '../settings';

type Reached = Pick<Settings, 'publicOrigin' | 'trustProxy' | 'host' | 'port'>;

/** Whether people reach the house over TLS, which always ends at a proxy before it. */
export const isOverTls = ({ publicOrigin }: Pick<Settings, 'publicOrigin'>): boolean =>
  publicOrigin?.startsWith('https:') ?? false;

/**
 * What is wrong with how the house is told of the proxy before it, by the name of the variable to set; null: nothing. A
 * house that is reached over TLS has one, and takes all visitors for one address where it does not know of it.
 */
export const proxyProblem = (settings: Reached): 'TRUST_PROXY' | null =>
  isOverTls(settings) && settings.trustProxy === false ? 'TRUST_PROXY' : null;

/** The same, for whoever looks after the server. */
export const PROXY_DETAIL =
  'PUBLIC_ORIGIN is https, so a proxy stands in front of this house, but TRUST_PROXY is not set. ' +
  'Set TRUST_PROXY=1 (or as many proxies as there are) and start it again.';

/** A host as it stands in an address: "::1" → "[::1]". */
export const hostInAddress = (host: string): string => (host.includes(':') ? `[${host}]` : host);
