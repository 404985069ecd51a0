import { createECDH, randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type IncomingMessage, request } from 'node:http';
import { join } from 'node:path';
import { systemClock } from '@porch/server/clock';
import { openDataFolder } from '@porch/server/data-folder';
import { hashSecret } from '@porch/server/security/tokens';
import { createServices } from '@porch/server/services';
import { toSettings } from '@porch/server/settings';
import webPush from 'web-push';
import { openDayAndNight } from '../server/test-kit/day-and-night';

/** How many rings, how many devices each rings, and how long between two. */
export interface Rhythm {
  rings: number;
  devices: number;
  everyMs: number;
}

interface Known {
  device: string;
  endpoint: string;
  keys: { p256dh: string; auth: string };
}

const later = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** A push service that only notes when a request comes. */
const openService = async () => {
  const cameAt: { device: string; at: number }[] = [];
  const server = createServer((asked: IncomingMessage, answer) => {
    cameAt.push({ device: (asked.url ?? '').split('/').at(-1) ?? '', at: performance.now() });
    asked.resume();
    asked.once('end', () => answer.writeHead(201).end());
  });
  await once(server.listen(0, '127.0.0.1'), 'listening');
  const origin = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
  const devices = (count: number): Known[] =>
    Array.from({ length: count }, (_, at) => {
      const pair = createECDH('prime256v1');
      pair.generateKeys();
      return {
        device: `device-${at}-0000`,
        endpoint: `${origin}/device-${at}-0000`,
        keys: {
          p256dh: pair.getPublicKey('base64url'),
          auth: randomBytes(16).toString('base64url'),
        },
      };
    });
  return { origin, cameAt, devices, close: () => server.close() };
};

const payload = JSON.stringify({
  say: 'ring',
  words: 'Is the big monstera still there?',
  talk: 'x'.repeat(21),
});

/** Bare: the library makes the request and it is sent, for each device. How long until each left, in ms. */
export const bareRings = async ({ rings, devices, everyMs }: Rhythm): Promise<number[]> => {
  const service = await openService();
  const known = service.devices(devices);
  const vapid = webPush.generateVAPIDKeys();
  const took: number[] = [];
  for (let ring = 0; ring < rings; ring += 1) {
    const before = service.cameAt.length;
    const start = performance.now();
    for (const { endpoint, keys } of known) {
      const details = webPush.generateRequestDetails({ endpoint, keys }, payload, {
        vapidDetails: { subject: 'mailto:bench@bench.example', ...vapid },
        TTL: 60,
      });
      const asked = request(endpoint, { method: 'POST', headers: details.headers });
      asked.on('response', (answer) => answer.resume());
      asked.end(details.body);
    }
    while (service.cameAt.length < before + devices) await later(1);
    took.push(...service.cameAt.slice(before).map(({ at }) => at - start));
    await later(everyMs);
  }
  service.close();
  return took;
};

/** Ours: somebody writes, and from that commit on until each push leaves. */
export const porchRings = async ({ rings, devices, everyMs }: Rhythm): Promise<number[]> => {
  const service = await openService();
  // On the disk of the project: durability is part of what is measured.
  const dataDir = mkdtempSync(join(process.cwd(), '.built/ringing-'));
  const settings = toSettings({ dataDir, pushNear: [service.origin], logLevel: 'error' });
  const { store, close } = openDataFolder(dataDir, systemClock);
  let saidAt = 0;
  const timed = {
    ...store,
    atOnce: <Result>(work: () => Result): Result => {
      const result = store.atOnce(work);
      saidAt ||= performance.now();
      return result;
    },
  };
  const services = createServices(settings, { clock: systemClock, store: timed });
  const owner = await services.accounts.setUp({
    code: services.firstCode.shown() ?? '',
    business: 'Bench',
    zone: 'UTC',
    name: 'Owner',
    email: 'owner@bench.example',
    password: 'long enough to be taken',
  });
  openDayAndNight({ store, services });
  services.here.note(owner.member.id);
  const session = services.sessions.open(owner.member);
  const sessionHash = hashSecret(session.secret);
  for (const { device: id, endpoint, keys } of service.devices(devices)) {
    store.bellDevices.put({
      id,
      memberId: owner.member.id,
      sessionHash,
      endpoint,
      ...keys,
      name: id,
      addedAt: 0,
    });
  }
  services.jobs.start();
  const [door] = store.doors.all();
  const took: number[] = [];
  for (let ring = 0; ring < rings; ring += 1) {
    const before = service.cameAt.length;
    const visitor = { doorId: door?.id ?? '', tokenHash: `visitor-${ring}` };
    const id = `bench-ring-${ring}-id`;
    const message = { id, text: 'Is the big monstera still there?', fileIds: [], page: null };
    // The commit that writes it is the first one from here on.
    saidAt = 0;
    await services.visiting.message(visitor, message, true);
    while (service.cameAt.length < before + devices) await later(1);
    const leftAt = saidAt;
    took.push(...service.cameAt.slice(before).map(({ at }) => at - leftAt));
    await later(everyMs);
  }
  services.jobs.stop();
  services.afterwards.stop();
  services.rowsBehind.stop();
  services.pusher.end();
  service.close();
  close();
  rmSync(dataDir, { recursive: true, force: true });
  return took;
};
