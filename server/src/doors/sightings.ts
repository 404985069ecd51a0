import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import type { DoorRecord, SightingRecord, Store } from '../store';

/** A busy website is seen every moment; once in this while is enough to know that it lives. */
const KEPT_EVERY_MS = 60_000;
const HELD_MOST = 2_000;
const PAGE_LONGEST = 200;

/** Where the snippet of each door is seen alive; kept now and then, not on every page view. */
export const createSightings = (services: { store: Store; clock: Clock; hub: Hub }) => {
  const { store, clock, hub } = services;
  const fresh = new Map<string, SightingRecord>();
  const keptAt = new Map<string, { at: number; page: string }>();

  return {
    /** A page of a website asked how the door is set; `page` is its path, or empty when it did not say. */
    note: (door: DoorRecord, origin: string, page: string): void => {
      if (!/^https?:\/\/.{1,300}$/.test(origin)) return;
      const key = `${door.id} ${origin}`;
      const kept = keptAt.get(key);
      const isNews = !kept || clock.now() - kept.at >= KEPT_EVERY_MS || (page && !kept.page);
      if (!isNews || (fresh.size >= HELD_MOST && !fresh.has(key))) return;
      const path =
        page.replace(/[?#].*$/, '').slice(0, PAGE_LONGEST) || (fresh.get(key)?.page ?? '');
      fresh.set(key, { doorId: door.id, origin, page: path, at: clock.now() });
    },
    tick: (): void => {
      if (fresh.size === 0) return;
      const news = [...fresh];
      fresh.clear();
      store.atOnce(() => {
        for (const [, sighting] of news) store.sightings.write(sighting);
      });
      if (keptAt.size > HELD_MOST) keptAt.clear();
      for (const [key, { at, page }] of news) keptAt.set(key, { at, page });
      hub.tellHouse();
    },
  };
};

export type Sightings = ReturnType<typeof createSightings>;
