import type { FastifyBaseLogger } from 'fastify';
import type { Services } from './services';

const TICK_MS = 1_000;
const TIDY_MS = 600_000;

/** What happens because time passes: the lamp lights again, conversations return, visitors are gone. */
export const tickOnce = async (services: Services): Promise<void> => {
  services.lamp.tick();
  await services.reply.returnDue();
  await services.presence.tick();
  services.reach.keep();
  services.sightings.tick();
};

/** Looks at the clock every second, and tidies up now and then. */
export const startTicking = (services: Services, log: FastifyBaseLogger) => {
  let tidiedAt = 0;
  const tick = async (): Promise<void> => {
    try {
      await tickOnce(services);
      if (services.clock.now() - tidiedAt < TIDY_MS) return;
      tidiedAt = services.clock.now();
      services.accounts.tidy();
      services.files.tidy();
      services.pictures.tidy();
      services.team.tidy();
    } catch (error) {
      log.error(error);
    }
  };
  const timer = setInterval(tick, TICK_MS);
  return { tick, stop: () => clearInterval(timer) };
};
