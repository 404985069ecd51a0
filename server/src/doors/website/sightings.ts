import { isListed, type Site } from '@porch/core/website';
import type { Clock } from '../../clock';
import type { Change } from '../../inbox/batch';
import type { DoorRecord, SightingRecord, Store } from '../../store';
import { sitesOf } from './kind';

/** A busy website is seen every moment; once in this while is enough to know that it lives. */
const KEPT_EVERY_MS = 60_000;
const PAGE_LONGEST = 200;
/** So many origins of one kind at one door: a listed website has a few (www, ports), strangers may be made up. */
const KEPT_MOST = { listed: 40, strange: 10 } as const;
const REMEMBERED_MOST = 2_000;

type Kind = keyof typeof KEPT_MOST;

/**
 * Where the snippet of each door is seen alive; kept now and then, not on every page view. Websites that
 * are not on the door's list are counted apart: any number of them pushes no listed one away.
 */
export const createSightings = (services: { store: Store; clock: Clock; change: Change }) => {
  const { store, clock, change } = services;
  const fresh = new Map<string, SightingRecord>();
  const keptAt = new Map<string, { at: number; page: string }>();

  const kindOf = (sites: readonly Site[], origin: string): Kind =>
    isListed(sites, origin) ? 'listed' : 'strange';

  const isFull = (door: DoorRecord, origin: string): boolean => {
    const { id } = door;
    const sites = sitesOf(door);
    const kind = kindOf(sites, origin);
    const alike = [...fresh.values()].filter(
      (other) => other.doorId === id && kindOf(sites, other.origin) === kind,
    );
    return alike.length >= KEPT_MOST[kind];
  };

  /** Drops the oldest of each kind that a door has too many of. */
  const trim = (doorId: string): void => {
    const door = store.doors.byId(doorId);
    const sites = door ? sitesOf(door) : [];
    const held = { listed: 0, strange: 0 };
    for (const { origin } of store.sightings.ofDoor(doorId)) {
      const kind = kindOf(sites, origin);
      held[kind] += 1;
      if (held[kind] > KEPT_MOST[kind]) store.sightings.drop(doorId, origin);
    }
  };

  return {
    /** A page of a website asked how the door is set; `page` is its path, or empty when it did not say. */
    note: (door: DoorRecord, origin: string, page: string): void => {
      if (!/^https?:\/\/.{1,300}$/.test(origin)) return;
      const key = `${door.id} ${origin}`;
      const kept = keptAt.get(key);
      const isNews = !kept || clock.steady() - kept.at >= KEPT_EVERY_MS || (page && !kept.page);
      if (!isNews || (!fresh.has(key) && isFull(door, origin))) return;
      const path =
        page.replace(/[?#].*$/, '').slice(0, PAGE_LONGEST) || (fresh.get(key)?.page ?? '');
      fresh.set(key, { doorId: door.id, origin, page: path, at: clock.now() });
    },
    tick: (): void => {
      if (fresh.size === 0) return;
      const news = [...fresh];
      fresh.clear();
      change(() => {
        for (const [, sighting] of news) store.sightings.write(sighting);
        for (const doorId of new Set(news.map(([, { doorId }]) => doorId))) trim(doorId);
      });
      if (keptAt.size > REMEMBERED_MOST) keptAt.clear();
      for (const [key, { page }] of news) keptAt.set(key, { at: clock.steady(), page });
    },
  };
};

export type Sightings = ReturnType<typeof createSightings>;
