// The service worker: opens the app where there is no signal, and rings. It keeps the app's own files and
// nothing of what the app shows.
import type { House } from '@porch/contract/house';
import type { Deed } from '@porch/contract/line';
import type { AlertDeed, PushLoad } from '@porch/core/ringing';
import { clientsClaim } from 'workbox-core';
import { matchPrecache, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { bestOf, speak } from '../kit/wording';
import { type Load, SYNC_TAG, sendUnsent, unsent } from '../shell/live/parcels';
import { bellDeviceId } from '../shell/session/bell-device';
import { keepShared } from '../shell/session/shared';
import { keptLine } from '../shell/start/kept';
import type { AlertData } from './alerts';
import type { DeedRequest } from './deeds';
import { drawMark, fetchPicture } from './drawing';
import { createOpening } from './opening';
import { createRinging } from './ringing';
import type { OwnWindow, WorkerScope } from './scope';

declare const self: WorkerScope;

speak(bestOf(self.navigator.languages ?? []));

clientsClaim();
// The app opens from what is kept of it, with and without signal; a newer one is told of once it is here.
registerRoute(
  new NavigationRoute(
    createOpening({
      shell: () => matchPrecache('/shell'),
      network: (request) => fetch(request),
      keptLine,
    }),
    { denylist: [/^\/(api|door|talk|widget|pictures|healthz)\b/, /\.\w+$/] },
  ),
);
precacheAndRoute(self.__WB_MANIFEST);

// What another app shares is kept here until somebody has said for whom it is.
registerRoute(
  ({ url }) => url.pathname === '/share',
  async ({ request }) => {
    await keepShared((await request.formData()) as unknown as FormData).catch(() => undefined);
    return Response.redirect('/share', 303);
  },
  'POST',
);

const windows = async (): Promise<readonly OwnWindow[]> => {
  const all = await self.clients.matchAll({ type: 'window', includeUncontrolled: true });
  // A visitor's page on this origin is no window of the app, and neither is a file or a frame in it.
  return all.filter(({ url }) => !/^\/(door|talk|widget)\/|\.\w+$/.test(new URL(url).pathname));
};

const ask = async ({ method, path, body }: DeedRequest): Promise<number> => {
  const headers = { 'content-type': 'application/json' };
  const asked = {
    method,
    headers,
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(20_000),
  };
  return fetch(path, asked).then(
    ({ status }) => status,
    () => 0,
  );
};

const keepForLater = async ({ lane, body }: DeedRequest): Promise<void> => {
  if (lane === null) return;
  const { id, ...deed } = body as unknown as Deed & { id: string };
  const load = { ...deed, files: [] } as unknown as Load;
  const now = Date.now();
  const fresh = { state: 'waiting', tries: 0, notBefore: 0, reason: null } as const;
  await unsent.put({ id, lane, load, madeAt: now, ...fresh });
  await self.registration.sync?.register(SYNC_TAG);
};

/** Whoever taps a button does not wait for longer: without signal the device's own clock has to do. */
const HOUSE_LONGEST_MS = 3_000;

const isApple = /iPhone|iPad|Macintosh.*Safari/.test(self.navigator.userAgent);

const ringing = createRinging({
  windows,
  openWindow: (path) => self.clients.openWindow(path),
  show: (title, options) =>
    self.registration.showNotification(title, {
      badge: '/icons/glyph-96.png',
      icon: '/icons/lamp-192.png',
      lang: self.navigator.language,
      ...options,
    }),
  shown: (tag) => self.registration.getNotifications({ tag }),
  badge: (waiting) => {
    const { navigator } = self;
    if (!('setAppBadge' in navigator)) return;
    const shown = waiting > 0 ? navigator.setAppBadge(waiting) : navigator.clearAppBadge();
    shown.catch(() => undefined);
  },
  mustShow: isApple && !/Chrome/.test(self.navigator.userAgent),
  pictures: async (load) => {
    if (load.say !== 'ring' || load.talk === null) return {};
    const icon = await drawMark(load.talk);
    const image = load.picture ? await fetchPicture(load.picture) : undefined;
    return { ...(icon ? { icon } : {}), ...(image ? { image } : {}) };
  },
  wait: (ms) => new Promise((over) => setTimeout(over, ms)),
  deviceId: bellDeviceId,
  ask,
  later: keepForLater,
  now: () => Date.now(),
  houseNow: async () => {
    const signal = AbortSignal.timeout(HOUSE_LONGEST_MS);
    const answer = await fetch('/api/house', { signal }).catch(() => null);
    const house = (await answer?.json().catch(() => null)) as House | null;
    return house?.now ?? Date.now();
  },
});

self.addEventListener('push', (event) => {
  const load = event.data?.json() as PushLoad | undefined;
  if (load) event.waitUntil(ringing.pushed(load));
});

self.addEventListener('notificationclick', (event) => {
  event.notification.close();
  const data = event.notification.data as AlertData;
  event.waitUntil(ringing.tapped(event.action as AlertDeed | '', data));
});

self.addEventListener('sync', (event) => {
  if (event.tag === SYNC_TAG) event.waitUntil(sendUnsent());
});

// A newer one waits until somebody has said so, or until no window of the older one is open.
self.addEventListener('message', (event) => {
  if (event.data?.say === 'take-over') void self.skipWaiting();
  if (event.data?.say === 'looked') event.waitUntil(ringing.looked(event.data.talks ?? []));
  if (event.data?.say === 'which-build') event.ports[0]?.postMessage(self.__BUILD);
});
