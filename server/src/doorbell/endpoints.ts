import { createPublicKey } from 'node:crypto';
import type { LookupFunction } from 'node:net';
import { ENDPOINT_LONGEST, type Subscription } from '@porch/contract/doorbell';
import ipaddr from 'ipaddr.js';
import { Refused } from '../refused';

/** Turns a name into addresses; `dns.lookup` in the form in which sockets ask for it. */
export type Resolve = LookupFunction;

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

/**
 * Whether an address that a client gave may be sent to: https, by its usual port, on the open internet as far as
 * its name tells. `allowed`: origins that may be sent to besides, as they are.
 */
export const mayRing = (endpoint: string, allowed: readonly string[]): boolean => {
  if (endpoint.length > ENDPOINT_LONGEST || !URL.canParse(endpoint)) return false;
  const { protocol, port, hostname, username, password, origin } = new URL(endpoint);
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

/** P-256's name and the start of a public key in its usual wrapping (RFC 5480), before the 65 bytes of a point. */
const POINT_WRAPPING = Buffer.from('3059301306072a8648ce3d020106082a8648ce3d030107034200', 'hex');

/** Whether 65 bytes are a point on the curve P-256: anything else encrypts for nobody. */
const isPoint = (bytes: Buffer): boolean => {
  if (bytes.length !== 65 || bytes[0] !== 4) return false;
  try {
    createPublicKey({ key: Buffer.concat([POINT_WRAPPING, bytes]), format: 'der', type: 'spki' });
    return true;
  } catch {
    return false;
  }
};

/** Refuses a subscription that nothing can be sent to, or that leads where nothing of ours may be sent. */
export const refuseBadSubscription = (
  { endpoint, keys }: Subscription,
  allowed: readonly string[],
): void => {
  if (!mayRing(endpoint, allowed)) throw new Refused('endpoint-refused', { field: 'endpoint' });
  const isUsable =
    isPoint(Buffer.from(keys.p256dh, 'base64url')) &&
    Buffer.from(keys.auth, 'base64url').length === 16;
  if (!isUsable) throw new Refused('keys-not-understood', { field: 'keys' });
};
