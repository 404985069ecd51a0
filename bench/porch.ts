import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { apartProcess } from '@porch/server/apart/process';
import { buildApp } from '@porch/server/app';
import { systemClock } from '@porch/server/clock';
import type { Done, Job } from '@porch/server/darkroom/work';
import { openDataFolder } from '@porch/server/data-folder';
import type { MailJob, ReadMail } from '@porch/server/mail/read-mail';
import { createServices } from '@porch/server/services';
import { toSettings } from '@porch/server/settings';
import { startTicking } from '@porch/server/ticking';
import { openDayAndNight } from '../server/test-kit/day-and-night';

/**
 * Ours, as it ships, but for flood limits that are high enough never to hold a load back. WORST=1 lifts only those
 * that the measured visitor would meet: what holds a flood back stays.
 */
const NO_LIMIT = 1e9;
const forTheMeasured = {
  visitorMessagesAMinute: NO_LIMIT,
  newVisitorsAnHour: NO_LIMIT,
  connectionsOfAnAddress: NO_LIMIT,
  mailsAMinute: NO_LIMIT,
};
const forALoad = {
  ...forTheMeasured,
  visitorHintsAMinute: NO_LIMIT,
  panelWordsAMinute: NO_LIMIT,
  hellosAMinute: NO_LIMIT,
  networksAMinute: NO_LIMIT,
};
const dataDir = process.env.DATA_DIR ?? mkdtempSync(join(tmpdir(), 'bench-'));
const limits = process.env.WORST ? forTheMeasured : forALoad;
const mailPortOf = process.env.WITH_MAIL ? { mailPort: 0 } : {};
const settings = toSettings({ dataDir, limits, logLevel: 'error', ...mailPortOf });
const { store } = openDataFolder(dataDir, systemClock);
const startDecoder = apartProcess<Job, Done>('server/dist/decoder.js');
const startMailReader = apartProcess<MailJob, ReadMail>('server/dist/mail-reader.js');
const parts = { clock: systemClock, store, startDecoder, startMailReader };
const services = createServices(settings, parts);
const code = services.firstCode.shown();
// Opened again after a kill it is set up already.
const owner =
  code &&
  (await services.accounts.setUp({
    code,
    business: 'Bench',
    zone: 'UTC',
    name: 'Owner',
    email: 'owner@bench.example',
    password: 'long enough to be taken',
  }));
if (owner) {
  openDayAndNight({ store, services });
  services.here.note(owner.member.id);
}
const app = await buildApp(settings, services);
startTicking(services);
const openMail = async (): Promise<number> => {
  const incoming = { kind: 'own' as const, domain: 'porch.example' };
  store.mail.setSettings({ outgoing: null, incoming });
  services.networks.make('mail', 'Mail', { address: 'hello@porch.example' });
  return services.mailPort.listen(0, '127.0.0.1');
};
if (process.env.WITH_MAIL) {
  const order = 'Order number;E-mail;Status\nQF-1101;ada@post.example;Packed\n';
  await services.orders.take(Buffer.from(order));
}
const mailPort = process.env.WITH_MAIL ? await openMail() : 0;
await app.listen({ port: Number(process.env.PORT ?? 0), host: process.env.HOST ?? '127.0.0.1' });
process.send?.({
  listening: (app.server.address() as { port: number }).port,
  mailPort,
  cookie: owner ? `porch=${owner.secret}` : '',
  door: store.doors.all()[0]?.publicId,
  doorId: store.doors.all()[0]?.id,
});
