import { fileURLToPath } from 'node:url';
import { handClock, systemClock } from './clock';
import { type OpenHouse, openHouse } from './house';
import { hostInAddress } from './security/proxy';
import { fromEnvironment, settingsProblem, toSettings } from './settings';

/**
 * Starts the server. With CLOCK=by-hand the process that started this one sets the time over the
 * channel between them; nothing on the network can.
 */
const start = async (): Promise<void> => {
  const settings = toSettings(fromEnvironment(process.env));
  const isByHand = process.env.CLOCK === 'by-hand' && process.send !== undefined;
  const byHand = handClock(Number(process.env.CLOCK_START ?? Date.now()));
  let house: OpenHouse | null = null;
  const stop = async (): Promise<void> => {
    await house?.close();
    process.exit(0);
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  const beside = fileURLToPath(new URL('.', import.meta.url));
  house = await openHouse(settings, { clock: isByHand ? byHand : systemClock, beside });
  process.on('message', async (message: { setClock?: number }) => {
    if (!isByHand || typeof message.setClock !== 'number') return;
    byHand.set(message.setClock);
    await house?.tick();
    process.send?.({ clockIs: byHand.now() });
  });
  const { port, firstCode } = house;
  const address = `http://${hostInAddress(settings.host)}:${port}`;
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
  process.stderr.write(`The server could not start: ${settingsProblem(error)}\n`);
  process.exit(1);
});
