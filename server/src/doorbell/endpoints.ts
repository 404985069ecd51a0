import { createPublicKey } from 'node:crypto';
import { ENDPOINT_LONGEST, type Subscription } from '@porch/contract/doorbell';
import { Refused } from '../refused';
import { mayAsk } from '../security/outside';

/** Whether a push may go to an address that a client gave. `allowed`: origins that it may go to besides, as they are. */
export const mayRing = (endpoint: string, allowed: readonly string[]): boolean =>
  endpoint.length <= ENDPOINT_LONGEST && mayAsk(endpoint, allowed);

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
