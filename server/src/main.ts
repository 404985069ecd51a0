import { join } from 'node:path';
import { buildApp } from './app';
import { handClock, systemClock } from './clock';
import { createServices } from './services';
import { fromEnvironment, toSettings } from './settings';
import { createStore, openDatabase } from './store';
import { startTicking } from './ticking';

/**
 * Starts the server. With CLOCK=by-hand the process that started this one sets the time over the
 * channel between them; nothing on the network can.
 */
const start = async (): Promise<void> => {
  const settings = toSettings(fromEnvironment(process.env));
  const isByHand = process.env.CLOCK === 'by-hand' && process.send !== undefined;
  const byHand = handClock(Number(process.env.CLOCK_START ?? Date.now()));
  const clock = isByHand ? byHand : systemClock;
  const store = createStore(openDatabase(join(settings.dataDir, 'porch.sqlite')));
  const services = createServices(settings, { clock, store });
  const app = await buildApp(settings, services);
  const ticking = startTicking(services, app.log);

  const stop = async (): Promise<void> => {
    ticking.stop();
    await app.close();
    store.close();
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

  await app.listen({ port: settings.port, host: settings.host });
  const { port } = app.server.address() as { port: number };
  process.stdout.write(`listening on http://${settings.host}:${port}\n`);
  process.send?.({ listening: port });
};

start().catch((error) => {
  process.stderr.write(`The server could not start: ${error.message}\n`);
  process.exit(1);
});
