import { fileURLToPath } from 'node:url';
import { buildApp } from './app';
import { handClock, systemClock } from './clock';
import { decoderProcess } from './darkroom/decoder-process';
import { damageInWords, openDataFolder } from './data-folder';
import { oweOldNotes } from './follow-ups/follow-ups';
import { calendarProcess } from './hours/calendar-process';
import { keyFile, keyPath, shutInWords } from './security/seal';
import { createServices } from './services';
import { fromEnvironment, toSettings } from './settings';
import { startTicking } from './ticking';
import { spellingProcess } from './writing/spelling-process';

/** Nobody who stops a server waits longer than this for it. */
const STOP_LONGEST_MS = 1_800;

const decoder = fileURLToPath(new URL('./decoder.js', import.meta.url));
const speller = fileURLToPath(new URL('./spelling-own-process.js', import.meta.url));
const calendar = fileURLToPath(new URL('./holidays.js', import.meta.url));

/**
 * Starts the server. With CLOCK=by-hand the process that started this one sets the time over the
 * channel between them; nothing on the network can.
 */
const start = async (): Promise<void> => {
  const settings = toSettings(fromEnvironment(process.env));
  const isByHand = process.env.CLOCK === 'by-hand' && process.send !== undefined;
  const byHand = handClock(Number(process.env.CLOCK_START ?? Date.now()));
  const clock = isByHand ? byHand : systemClock;
  const folder = openDataFolder(settings.dataDir, clock);
  const startDecoder = decoderProcess(decoder);
  const spell = spellingProcess(speller);
  const keys = keyFile(keyPath(settings.dataDir));
  const services = createServices(settings, {
    clock,
    store: folder.store,
    startDecoder,
    keys,
    holidays: calendarProcess(calendar),
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
  try {
    oweOldNotes(services);
    services.pulling.beginAll();
  } catch (error) {
    // A full disk is no reason not to open; the next start does it.
    services.report(error);
  }

  const stop = async (): Promise<void> => {
    ticking.stop();
    services.refold.stop();
    services.dueTimes.stop();
    services.jobs.stop();
    const inTime = new Promise((resolve) => setTimeout(resolve, STOP_LONGEST_MS));
    await Promise.race([app.close(), inTime]);
    services.darkroom.end();
    spell.end();
    folder.close();
    process.exit(0);
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  process.on('message', async (message: { setClock?: number }) => {
    if (!isByHand || typeof message.setClock !== 'number') return;
    byHand.set(message.setClock);
    await ticking.tick();
    process.send?.({ clockIs: byHand.now() });
  });

  if (settings.mailPort !== undefined) {
    await services.mailPort.listen(settings.mailPort, settings.host);
  }
  services.mailboxes.restart();
  await app.listen({ port: settings.port, host: settings.host });
  const { port } = app.server.address() as { port: number };
  const address = `http://${settings.host}:${port}`;
  const firstCode = services.firstCode.shown();
  process.stdout.write(`listening on ${address}\n`);
  if (firstCode) {
    const origin = settings.publicOrigin ?? address;
    process.stdout.write(
      `Nobody has set this house up yet. Open ${origin}/set-up#${firstCode} (the code of the house is ${firstCode})\n`,
    );
  }
  process.send?.({ listening: port, firstCode });
};

start().catch((error) => {
  process.stderr.write(`The server could not start: ${error.message}\n`);
  process.exit(1);
});
