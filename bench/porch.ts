import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildApp } from '@porch/server/app';
import { systemClock } from '@porch/server/clock';
import { createServices } from '@porch/server/services';
import { toSettings } from '@porch/server/settings';
import { createStore, openDatabase } from '@porch/server/store/index';

/** Ours, as it ships, but for flood limits high enough that they never hold the load back. */
const dataDir = process.env.DATA_DIR ?? mkdtempSync(join(tmpdir(), 'bench-'));
const NO_LIMIT = 1e9;
const limits = {
  visitorMessagesAMinute: NO_LIMIT,
  newVisitorsAnHour: NO_LIMIT,
  visitorHintsAMinute: NO_LIMIT,
  panelWordsAMinute: NO_LIMIT,
  hellosAMinute: NO_LIMIT,
  connectionsOfAnAddress: NO_LIMIT,
};
const settings = toSettings({ dataDir, limits, logLevel: 'error' });
const store = createStore(openDatabase(join(dataDir, 'porch.sqlite')));
const services = createServices(settings, { clock: systemClock, store });
const owner = await services.accounts.setUp({
  code: services.firstCode.shown() ?? '',
  business: 'Bench',
  zone: 'UTC',
  name: 'Owner',
  email: 'owner@bench.example',
  password: 'long enough to be taken',
});
const app = await buildApp(settings, services);
await app.listen({ port: 0, host: '127.0.0.1' });
process.send?.({
  listening: (app.server.address() as { port: number }).port,
  cookie: `porch=${owner.secret}`,
  door: store.doors.all()[0]?.publicId,
});
