import type { Door } from '@porch/contract/doors';
import type { Thread } from '@porch/contract/entries';
import { networkRouteOf, routeOf } from '@porch/core/routes';
import { momentInWords, spanInWords } from '../../../kit/times';
import { words } from '../words';

/** Where an answer goes, in words: known before it is sent. */
export interface RouteShown {
  said: string;
  /** Nothing goes there, and what is said is why. */
  isShut: boolean;
}

/** What a route is told from: one who writes, and the door they write by; null: it was taken away, absent: not known. */
interface Told {
  thread: Thread | undefined;
  door: Door | null | undefined;
  doorName: string;
  canMail: boolean;
}

const byNetwork = ({ thread, door, doorName }: Told, now: number, zone: string): RouteShown => {
  const said = words().route.network;
  const route = networkRouteOf(
    {
      heardAt: thread?.heardAt ?? null,
      windowMs: door?.can?.windowMs ?? null,
      isClosed: door?.isClosed ?? true,
      isStopped: thread?.isStopped ?? false,
      isMute: door?.can?.isMute,
    },
    now,
  );
  if (route.to === 'network') {
    if (door?.can?.isAsText) return { said: said.asText, isShut: false };
    const { until } = route;
    const left = until === null ? '' : spanInWords(until - now);
    return { said: left ? said.until(doorName, left) : said.always(doorName), isShut: false };
  }
  if (route.why !== 'window') {
    const why = door ? route.why : 'gone';
    return { said: said[why](doorName), isShut: true };
  }
  const since = momentInWords(route.since ?? now, now, zone);
  return { said: said.window(doorName, since), isShut: true };
};

/** Where an answer goes to somebody who writes by a door. */
export const routeInWords = (told: Told, now: number, zone: string): RouteShown => {
  const { thread, door, canMail } = told;
  if (door === null || door?.isCarried) return byNetwork(told, now, zone);
  const {
    isHere = false,
    email = '',
    movedAt = null,
    isMailStopped: isStopped = false,
  } = thread ?? {};
  const said = words().route;
  const route = routeOf({ isHere, email, canMail, isStopped });
  const line = (): string => {
    if (route.to === 'screen') return said.here;
    if (route.to === 'nowhere') return said.nowhere[route.why];
    return movedAt === null
      ? said.mail(route.address)
      : said.mailGone(route.address, momentInWords(movedAt, now, zone));
  };
  return { said: line(), isShut: false };
};
