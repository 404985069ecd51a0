import type { PromisesShown } from '@porch/contract/promises';
import { type Promises, plainPromises } from '@porch/core/promises';
import { toldMinutes, USUAL_OVER_MS, usualMinutes } from '@porch/core/usual';
import type { Clock } from '../clock';
import { lastDoorOf } from '../doors/called';
import type { HoursOf } from '../hours/hours';
import type { Change } from '../inbox/batch';
import type { Follow } from '../inbox/record';
import type { Store } from '../store';

/** So long what is usual is taken from what was reckoned. */
const USUAL_KEPT_MS = 60_000;

/** More of those who wait tell nothing new of how long it takes today. */
const WAITING_LOOKED_AT = 50;

/** What is promised to whoever writes, and how long answers take. */
export const createPromises = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  opening: HoursOf['opening'];
}) => {
  const { store, clock, change, opening } = services;
  let known: { at: number; minutes: number | null; told: number | null } | null = null;

  const promises = (): Promises => ({ ...plainPromises, ...store.promises.settings() });

  /** How long those who wait have waited, in open time. */
  const waited = (): number[] =>
    store.conversations.page('waiting', null, WAITING_LOOKED_AT).flatMap((waiting) => {
      const { waitingSince } = waiting.state;
      if (waitingSince === null) return [];
      const doorId = lastDoorOf(store, waiting)?.id ?? '';
      return [opening(doorId).openMsBetween(waitingSince, clock.now())];
    });

  const usual = () => {
    const now = clock.steady();
    if (!known || now - known.at >= USUAL_KEPT_MS) {
      const minutes = usualMinutes(store.answerTimes.since(clock.now() - USUAL_OVER_MS));
      known = { at: now, minutes, told: minutes && toldMinutes(minutes, waited()) };
    }
    return known;
  };

  /** Somebody who waited has their first answer: how much open time that took is kept. */
  const follow: Follow = (was, _now, entries) => {
    const answer = entries.find(({ kind }) => kind === 'team-said');
    const { waitingSince, cameBack } = was.state;
    if (answer && waitingSince !== null && !cameBack) {
      const doorId = lastDoorOf(store, was)?.id ?? '';
      const took = opening(doorId).openMsBetween(waitingSince, answer.at);
      store.answerTimes.add(doorId, answer.at, took);
    }
    return [];
  };

  return {
    now: promises,
    follow,
    /** How long an answer usually takes, in minutes, for visitors to read; null: it is not told. */
    told: (): number | null => (promises().showsUsual ? usual().told : null),
    shown: (): PromisesShown => ({
      promises: promises(),
      usualMinutes: usual().minutes,
      answers: store.answerTimes.since(clock.now() - USUAL_OVER_MS).length,
    }),
    set: (next: Promises): void => change(() => store.promises.setSettings(next)),
    /** What is older than anybody looks is let go. */
    tidy: (): void => store.answerTimes.dropBefore(clock.now() - USUAL_OVER_MS),
  };
};

export type PromisesKept = ReturnType<typeof createPromises>;
