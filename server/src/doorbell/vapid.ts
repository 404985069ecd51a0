import { createECDH } from 'node:crypto';
import webPush from 'web-push';
import type { Clock } from '../clock';
import { createMadeSecret } from '../security/made-secret';
import type { Seal } from '../security/seal';
import type { Store } from '../store';

export interface VapidKeys {
  /** A point on P-256, uncompressed, in base64url: what browsers are told (RFC 8292, 3.2). */
  publicKey: string;
  privateKey: string;
}

/** RFC 8292, 2: at most a day. Half of that leaves room for a clock that is set. */
const TOKEN_LASTS_MS = 12 * 3_600_000;

const newKeys = (): VapidKeys => {
  const pair = createECDH('prime256v1');
  pair.generateKeys();
  return {
    publicKey: pair.getPublicKey('base64url', 'uncompressed'),
    // Leading zeros belong to it: a private key is 32 bytes.
    privateKey: Buffer.from(pair.getPrivateKey('hex').padStart(64, '0'), 'hex').toString(
      'base64url',
    ),
  };
};

/**
 * By which push services know that it is we who ring (RFC 8292): keys that are made once and sealed, and a token
 * for each service, which is good for a while and not signed anew for each ring.
 */
export const createVapid = (services: {
  store: Store;
  seal: Seal;
  clock: Clock;
  /** Whom a push service may write to when something is wrong with what we send. */
  contact: () => string;
}) => {
  const { clock, contact } = services;
  const secret = createMadeSecret(services, 'vapid', () => JSON.stringify(newKeys()));
  const tokens = new Map<string, { header: string; by: string; until: number }>();

  const keys = (): VapidKeys | null => {
    const read = secret.read();
    return read === null ? null : JSON.parse(read);
  };

  return {
    /** Made when they are first asked for; null where the key that opens them is missing, or another one. */
    keys,
    isSealedShut: (): boolean => keys() === null,
    /** Makes new ones: every device has to be asked again, as each knows only those that it agreed to. */
    renew: secret.renew,
    /** What stands in the header `Authorization` for an origin; null where the keys cannot be opened. */
    authorization: (origin: string): string | null => {
      const pair = keys();
      if (!pair) return null;
      const now = clock.now();
      const kept = tokens.get(origin);
      const left = kept?.by === pair.publicKey ? kept.until - now : 0;
      // Also where the clock was set back: nobody takes a token that lasts for longer than a day.
      if (kept && left > TOKEN_LASTS_MS / 2 && left <= TOKEN_LASTS_MS) return kept.header;
      const until = now + TOKEN_LASTS_MS;
      const { Authorization: header } = webPush.getVapidHeaders(
        origin,
        contact(),
        pair.publicKey,
        pair.privateKey,
        'aes128gcm',
        Math.floor(until / 1_000),
      );
      if (tokens.size > 100) tokens.clear();
      tokens.set(origin, { header, by: pair.publicKey, until });
      return header;
    },
  };
};

export type Vapid = ReturnType<typeof createVapid>;
