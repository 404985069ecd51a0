import type { Door, DoorHealth, Sighting } from '@porch/contract/doors';
import { momentInWords } from '../../../kit/times';
import { whyInWords } from '../../../shell/words/why';
import { networkWords } from '../kinds';
import { words } from '../words';
import { doorWords } from '../words/network';

/** What kind of door it is, as people call it. */
export const doorKind = (door?: Pick<Door, 'kind' | 'isCarried'>): string =>
  door?.isCarried ? (networkWords(door.kind)?.name ?? doorWords().unknownKind) : words().kind;

/** How a door to a network is: when it was last heard, or since when it fails and why. */
export const healthInWords = (health: DoorHealth, now: number, zone: string): string => {
  const { heardAt, failingSince, why } = health;
  if (failingSince !== null) {
    const reason = why === null ? '' : whyInWords(why);
    return doorWords().failing(momentInWords(failingSince, now, zone), reason);
  }
  if (heardAt === null) return doorWords().neverHeard;
  return doorWords().heard(momentInWords(heardAt, now, zone));
};

const siteInWords = (door: Door): string =>
  [
    door.sites.join(', ') || words().noSite,
    ...(door.health.why ? [words().failing(whyInWords(door.health.why))] : []),
  ].join(' · ');

/** A line about a door: what it is, and how. */
export const doorInWords = (door: Door, now: number, zone: string): string => {
  const how = door.isCarried ? healthInWords(door.health, now, zone) : siteInWords(door);
  const kind = doorKind(door);
  return [kind === door.name ? '' : kind, door.isClosed ? words().closed : how]
    .filter(Boolean)
    .join(' · ');
};

/** Where and when a door's snippet was seen alive. */
export const sightingInWords = (seen: Sighting, now: number, zone: string): string =>
  words().seenOn(seen.site, seen.page, momentInWords(seen.at, now, zone));
