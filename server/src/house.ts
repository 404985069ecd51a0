import { join } from 'node:path';
import { apartProcess } from './apart/process';
import { buildApp } from './app';
import type { Clock } from './clock';
import { damageInWords, openDataFolder } from './data-folder';
import { oweOldNotes } from './follow-ups/follow-ups';
import { calendarProcess } from './hours/calendar-process';
import { keyFile, keyPath, shutInWords } from './security/seal';
import { createServices } from './services';
import type { Settings } from './settings';
import { startTicking } from './ticking';
import { spellingProcess } from './writing/spelling-process';

/** Nobody who stops a server waits longer than this for it. */
const STOP_LONGEST_MS = 1_800;

/** A house that takes requests. */
export interface OpenHouse {
  port: number;
  /** With what it is set up; null once it is. */
  firstCode: string | null;
  /** Does what is due by now, at once. */
  tick(): Promise<void>;
  /** Ends what is in work, and lets go of its data. */
  close(): Promise<void>;
}

/** Several times what the largest mail needs that is taken. */
const MAIL_READER_MEMORY_MB = 384;

/**
 * Opens the data folder and takes requests. `beside`: the folder of the built programs that it starts as processes of
 * their own. Rejects where the data cannot be opened or a port is taken.
 */
export const openHouse = async (
  settings: Settings,
  { clock, beside }: { clock: Clock; beside: string },
): Promise<OpenHouse> => {
  const folder = openDataFolder(settings.dataDir, clock);
  const spell = spellingProcess(join(beside, 'spelling-own-process.js'));
  const services = createServices(settings, {
    clock,
    store: folder.store,
    startDecoder: apartProcess(join(beside, 'decoder.js')),
    startMailReader: apartProcess(join(beside, 'mail-reader.js'), MAIL_READER_MEMORY_MB),
    keys: keyFile(keyPath(settings.dataDir)),
    holidays: calendarProcess(join(beside, 'holidays.js')),
    spell,
  });
  const shut = services.registry.sealedShut().map(({ name }) => name);
  if (shut.length > 0) {
    const detail = shutInWords(shut, keyPath(settings.dataDir));
    folder.store.findings.write({ kind: 'secrets-sealed', at: clock.now(), detail });
  }
  const app = await buildApp(settings, services);
  if (folder.damage) app.log.error(damageInWords(folder.damage));
  const ticking = startTicking(services);
  services.refold.run().catch((error) => app.log.error(error));
  void services.dueTimes.run();
  services.afterwards.begin();
  try {
    oweOldNotes(services);
    services.pulling.beginAll();
  } catch (error) {
    // A full disk is no reason not to open; the next start does it.
    services.report(error);
  }

  if (settings.mailPort !== undefined) {
    await services.mailPort.listen(settings.mailPort, settings.host);
  }
  services.mailboxes.restart();
  await app.listen({ port: settings.port, host: settings.host });
  const { port } = app.server.address() as { port: number };
  return {
    port,
    firstCode: services.firstCode.shown(),
    tick: ticking.tick,
    close: async () => {
      ticking.stop();
      services.refold.stop();
      services.dueTimes.stop();
      services.jobs.stop();
      const inTime = new Promise((resolve) => setTimeout(resolve, STOP_LONGEST_MS).unref());
      await Promise.race([app.close(), inTime]);
      services.darkroom.end();
      spell.end();
      folder.close();
    },
  };
};
