import type { ConversationState } from '../conversation';

export { goAsLinks, withLinks } from './links';

/** Where an answer to somebody goes. */
export type Route =
  /** Onto their screen: they are on the page, or it is a door that carries it. */
  | { to: 'screen' }
  /** Also by email, once it is clear that they do not read it on the page. */
  | { to: 'mail'; address: string }
  /** Nowhere yet, and why: they see it when they come back to the page. */
  | { to: 'nowhere'; why: 'no-address' | 'no-mail' | 'stopped' };

/** Where an answer to somebody goes who writes by a network. */
export type NetworkRoute =
  /** To them, until a moment; null: for good. */
  | { to: 'network'; until: number | null }
  /** Not to them: since when, where it is known. */
  | { to: 'shut'; why: 'closed' | 'mute' | 'stopped' | 'window'; since: number | null };

/** What a route is found from. */
export interface RouteMeans {
  isHere: boolean;
  email: string;
  /** Mail goes out of this house at all. */
  canMail: boolean;
  /** Whoever has the address wants nothing more to come to it. */
  isStopped: boolean;
}

/** Where an answer goes that is given now to somebody who writes on a website. */
export const routeOf = ({ isHere, email, canMail, isStopped }: RouteMeans): Route => {
  if (isHere) return { to: 'screen' };
  if (!email) return { to: 'nowhere', why: 'no-address' };
  if (!canMail) return { to: 'nowhere', why: 'no-mail' };
  return isStopped ? { to: 'nowhere', why: 'stopped' } : { to: 'mail', address: email };
};

/** When a network lets somebody be answered no more, UTC epoch milliseconds; null: it always does. */
export const windowEnd = (heardAt: number | null, windowMs: number | null): number | null =>
  heardAt === null || windowMs === null ? null : heardAt + windowMs;

/** So long before a network's window closes it is said so; of a short one, a quarter of it. In milliseconds. */
const WARNED_MS = 3_600_000;

/** When it is said that a window closes, UTC epoch milliseconds. */
export const warnedAt = (end: number, windowMs: number): number =>
  end - Math.min(WARNED_MS, windowMs / 4);

/** What a network's route is found from. */
export interface NetworkMeans {
  /** When they said something last. */
  heardAt: number | null;
  windowMs: number | null;
  /** The door is closed, or was taken away. */
  isClosed: boolean;
  /** They have said that they want nothing more by it. */
  isStopped: boolean;
  /** Nothing that is written goes out by it. */
  isMute?: boolean;
}

/** Where an answer goes that is given at `now` to somebody who writes by a network. */
export const networkRouteOf = (
  { heardAt, windowMs, isClosed, isStopped, isMute = false }: NetworkMeans,
  now: number,
): NetworkRoute => {
  if (isClosed) return { to: 'shut', why: 'closed', since: null };
  if (isMute) return { to: 'shut', why: 'mute', since: null };
  if (isStopped) return { to: 'shut', why: 'stopped', since: null };
  const until = windowEnd(heardAt, windowMs);
  if (until !== null && until <= now) return { to: 'shut', why: 'window', since: until };
  return { to: 'network', until };
};

/** Several answers in a row go out as one mail: so long it is waited for the next, in milliseconds. */
export const GATHER_MS = 20_000;

/**
 * When answers that somebody may not have read go out by mail: at once (but for a moment, in which more may come)
 * where they are gone, and so long after they went where they left without having read them. Null: not now, they are
 * here and see them.
 */
export const mailAt = (
  { isHere, movedAt }: Pick<ConversationState, 'isHere' | 'movedAt'>,
  saidAt: number,
  afterMs: number,
): number | null => {
  if (isHere) return null;
  // They were there when it was said: they may come back to it in a moment.
  const hasLeftIt = movedAt !== null && movedAt > saidAt;
  return hasLeftIt ? movedAt + afterMs : saidAt + GATHER_MS;
};
