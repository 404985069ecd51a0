import type { Door, Sighting } from '@porch/contract/doors';
import { momentInWords } from '../../../kit/times';
import { whyInWords } from '../../../shell/words/why';
import { words } from '../words';

/** What kind of door it is, as people call it. */
export const doorKind = (): string => words().kind;

/** A line about a door: where it stands, and what is wrong with it. */
export const doorInWords = (door: Door): string =>
  [
    words().kind,
    door.isClosed ? words().closed : door.sites.join(', ') || words().noSite,
    ...(door.health.why ? [words().failing(whyInWords(door.health.why))] : []),
  ].join(' · ');

/** Where and when a door's snippet was seen alive. */
export const sightingInWords = (seen: Sighting, now: number, zone: string): string =>
  words().seenOn(seen.site, seen.page, momentInWords(seen.at, now, zone));
