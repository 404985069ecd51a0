import type { Services } from './services';

const TICK_MS = 1_000;
const TIDY_MS = 600_000;
/** By then nobody is asked any more about somebody who waited. */
const ASKED_KEPT_MS = 30 * 24 * 3_600_000;
const SWEEP_MS = 60_000;

type Work = () => unknown;

/** Does each piece of work whatever becomes of the others; what fails is reported. */
const each = async (works: readonly Work[], report: (error: unknown) => void): Promise<void> => {
  for (const work of works) {
    try {
      await work();
    } catch (error) {
      report(error);
    }
  }
};

/** What happens because time passes: the lamp lights again, conversations return, visitors are gone. */
export const tickOnce = (services: Services): Promise<void> => {
  const { here, lamp, late, jobs, presence, reach, sightings, greetings, disk, report } = services;
  const works = [
    disk.tick,
    here.tick,
    lamp.tick,
    late.tick,
    jobs.tick,
    presence.tick,
    reach.keep,
    sightings.tick,
    greetings.tick,
  ];
  return each(works, report);
};

/** Looks at the clock every second, and tidies up now and then. */
export const startTicking = (services: Services) => {
  const {
    clock,
    store,
    accounts,
    files,
    pictures,
    team,
    delivering,
    claims,
    mailTaking,
    hours,
    promises,
    followUps,
    cards,
    limits,
    report,
  } = services;
  const every = (ms: number, works: readonly Work[]) => {
    let doneAt = Number.NEGATIVE_INFINITY;
    return async (): Promise<void> => {
      if (clock.steady() - doneAt < ms) return;
      doneAt = clock.steady();
      await each(works, report);
    };
  };
  const tidy = every(TIDY_MS, [
    accounts.tidy,
    files.tidy,
    pictures.tidy,
    team.tidy,
    delivering.tidy,
    claims.tidy,
    mailTaking.tidy,
    hours.tidy,
    promises.tidy,
    store.jobs.tidy,
    () => store.promises.tidy(clock.now() - ASKED_KEPT_MS),
    followUps.tidy,
    cards.tidy,
  ]);
  const sweep = every(
    SWEEP_MS,
    Object.values(limits).map((buckets) => buckets.sweep),
  );
  const tick = async (): Promise<void> => {
    await tickOnce(services);
    await sweep();
    await tidy();
  };
  services.jobs.start();
  const timer = setInterval(tick, TICK_MS);
  return { tick, stop: () => clearInterval(timer) };
};
