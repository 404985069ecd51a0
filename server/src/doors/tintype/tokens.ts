import type { Clock } from '../../clock';
import { JobFailed } from '../../jobs/worker';
import type { DoorRecord } from '../../store';
import type { Asking } from '../asking';
import { secretsOf, toldOf } from '../network-parts';
import { TokenSchema } from './wire';

/** So long before it ends a token is not begun with any more. */
const SPARE_MS = 30_000;

interface Token {
  token: string;
  /** For which key it was given: another one wants another token. */
  secret: string;
  untilMs: number;
}

/** Tokens by which the network knows us for a while (RFC 6749, 4.4), each asked for when it is needed. */
export const createTokens = ({ asking, clock }: { asking: Asking; clock: Clock }) => {
  const known = new Map<string, Token>();

  const fetched = async (
    door: DoorRecord,
    secret: string,
    signal: AbortSignal,
  ): Promise<string> => {
    const { url, account = '' } = toldOf(door);
    const { key = '' } = secretsOf(secret);
    const body = new URLSearchParams({ grant_type: 'client_credentials' }).toString();
    const headers = {
      authorization: `Basic ${Buffer.from(`${account}:${key}`).toString('base64')}`,
      'content-type': 'application/x-www-form-urlencoded',
      'content-length': Buffer.byteLength(body),
    };
    const asked = { method: 'POST', address: `${url}/token`, headers, body, signal };
    const given = await asking.json(asked, TokenSchema);
    const untilMs = clock.steady() + given.expires_in * 1_000 - SPARE_MS;
    known.set(door.id, { token: given.access_token, secret, untilMs });
    return given.access_token;
  };

  return {
    /** Does something with a token; with a fresh one where the one that was known is good no more. */
    with: async <Result>(
      { door, secret, signal }: { door: DoorRecord; secret: string | null; signal: AbortSignal },
      work: (token: string) => Promise<Result>,
    ): Promise<Result> => {
      if (secret === null) throw new JobFailed('key-missing', true);
      const had = known.get(door.id);
      const isGood = had?.secret === secret && had.untilMs > clock.steady();
      if (!had || !isGood) return work(await fetched(door, secret, signal));
      try {
        return await work(had.token);
      } catch (error) {
        if (!(error instanceof JobFailed) || error.why !== 'key-refused') throw error;
        known.delete(door.id);
        return work(await fetched(door, secret, signal));
      }
    },
  };
};
