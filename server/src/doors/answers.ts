import { JobFailed } from '../jobs/worker';
import { type Answered, LeadsInside } from '../security/outside';
import { retryAfterMs } from '../security/retry-after';

/** Why nothing came back at all, as what the door is said to fail by. */
export const failureOf = (error: unknown, signal: AbortSignal): JobFailed => {
  if (error instanceof JobFailed) return error;
  if (error instanceof LeadsInside) return new JobFailed('network-inside', true);
  return new JobFailed(signal.aborted ? 'network-too-slow' : 'network-unreachable');
};

/** What a network answered, where it took what was asked; fails by what it meant otherwise. */
export const bytesOrFail = ({ status, headers, body }: Answered, now: number): Buffer => {
  if (status >= 200 && status < 300) return body;
  const afterMs = retryAfterMs(headers['retry-after'], now);
  if (status === 429) throw new JobFailed('network-too-many', false, afterMs);
  // The owner may put another key in: what waits goes out then.
  if (status === 401 || status === 403) throw new JobFailed('key-refused');
  if (status === 404 || status === 410) throw new JobFailed('network-gone');
  if (status >= 500) throw new JobFailed('network-broken', false, afterMs);
  throw new JobFailed('network-refused', true);
};

/** What is wrong with one message, and not with the door that it should have gone by. */
const ofMessages: ReadonlySet<string> = new Set([
  'network-refused',
  'window-closed',
  'door-closed',
  'door-mute',
  'person-stopped',
  'person-unknown',
  'mail-refused',
  'file-too-large',
  'file-elsewhere',
  'file-gone',
  'not-now',
]);

export const isOfDoor = (why: string): boolean => !ofMessages.has(why);
