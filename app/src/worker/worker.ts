// The service worker: opens the app where there is no signal. It keeps the app's own files and
// nothing of what the app shows.
import { clientsClaim } from 'workbox-core';
import { matchPrecache, type PrecacheEntry, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { networkOrKept } from './network-or-kept';

declare const self: {
  /** What the app consists of; the build writes it in. */
  __WB_MANIFEST: PrecacheEntry[];
  skipWaiting(): Promise<void>;
};

const freshOrKept = (path: string) =>
  networkOrKept({
    fetch: (request) => fetch(request),
    kept: () => matchPrecache(path),
    wait: (done, ms) => setTimeout(done, ms),
  });

void self.skipWaiting();
clientsClaim();
// The page and its sheet have no version in their names: fresh while there is signal.
registerRoute(
  new NavigationRoute(freshOrKept('/'), {
    denylist: [/^\/(api|door|talk|widget|pictures|healthz)\b/, /\.\w+$/],
  }),
);
registerRoute(({ url }) => url.pathname === '/app.css', freshOrKept('/app.css'));
precacheAndRoute(self.__WB_MANIFEST);
