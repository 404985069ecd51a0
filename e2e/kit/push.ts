import { type BrowserContext, type CDPSession, expect, type Page } from '@playwright/test';
import type { Porch } from './porch';

/** A subscription as a page gets it from its browser. */
interface Made {
  endpoint: string;
  keys: { p256dh: string; auth: string };
}

interface Arrival {
  at: number;
  text: string | null;
}

interface Registration {
  registrationId: string;
  scopeURL: string;
}

interface Counting {
  pushesDone?: number;
}

/** How many pushes the service worker has been done with since it was first asked this. */
const pushesDone = async (context: BrowserContext): Promise<number> => {
  const [worker] = context.serviceWorkers();
  if (!worker) throw new Error('there is no service worker');
  return worker.evaluate(() => {
    const scope = self as unknown as Counting & { PushEvent: { prototype: object } };
    if (scope.pushesDone === undefined) {
      scope.pushesDone = 0;
      const done = (): void => {
        scope.pushesDone = (scope.pushesDone ?? 0) + 1;
      };
      const { prototype } = scope.PushEvent;
      const { waitUntil } = prototype as { waitUntil: (work: Promise<unknown>) => void };
      Object.assign(prototype, {
        waitUntil(work: Promise<unknown>) {
          waitUntil.call(this, work);
          work.then(done, done);
        },
      });
    }
    return scope.pushesDone;
  });
};

/**
 * A browser whose push service is the street's: its own cannot be reached from here. Subscribing is given to each
 * page; what the street opened is handed to the real service worker. Call it before the first page is opened.
 */
export const ringBy = async (context: BrowserContext, porch: Porch, device: string) => {
  await context.grantPermissions(['notifications'], { origin: porch.origin });
  await context.exposeFunction('subscribeOnTheStreet', async (): Promise<Made> => {
    const answer = await fetch(`${porch.site}/push/devices/${device}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: 'null',
    });
    return (await answer.json()) as Made;
  });
  await context.addInitScript(() => {
    type Known = { made: Made; key: number[] };
    const key = 'test:subscription';
    const read = (): Known | null => JSON.parse(localStorage.getItem(key) ?? 'null');
    const asSubscription = ({ made, key: bytes }: Known) => ({
      endpoint: made.endpoint,
      options: { userVisibleOnly: true, applicationServerKey: new Uint8Array(bytes).buffer },
      toJSON: () => made,
      unsubscribe: async () => {
        localStorage.removeItem(key);
        return true;
      },
    });
    const given = globalThis as unknown as { subscribeOnTheStreet: () => Promise<Made> };
    Object.assign(PushManager.prototype, {
      getSubscription: async () => {
        const known = read();
        return known && asSubscription(known);
      },
      subscribe: async ({ applicationServerKey }: { applicationServerKey: Uint8Array }) => {
        const made = await given.subscribeOnTheStreet();
        const known = { made, key: [...applicationServerKey] };
        localStorage.setItem(key, JSON.stringify(known));
        return asSubscription(known);
      },
    });
  });

  let handed = 0;
  const arrivals = async (): Promise<Arrival[]> =>
    (await fetch(`${porch.site}/push/devices/${device}/arrivals`)).json();

  const registrationOf = async (session: CDPSession): Promise<string> => {
    const found = new Promise<string>((resolve) => {
      session.on('ServiceWorker.workerRegistrationUpdated', ({ registrations }) => {
        const ours = (registrations as Registration[]).find(({ scopeURL }) =>
          scopeURL.startsWith(porch.origin),
        );
        if (ours) resolve(ours.registrationId);
      });
    });
    await session.send('ServiceWorker.enable');
    return found;
  };

  return {
    arrivals,
    /** What the street has taken for this device and nobody was handed yet, as clear text. */
    waiting: async (): Promise<string[]> =>
      (await arrivals()).slice(handed).map(({ text }) => text ?? ''),
    fault: async (fault: string): Promise<void> => {
      await fetch(`${porch.site}/push/devices/${device}/fault`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ fault }),
      });
    },
    /**
     * Hands what has come to the service worker, as the browser's own push service would, and waits until that is done
     * with it: Chromium forgets an alert for which a page asks while it is being shown.
     */
    deliver: async (page: Page): Promise<void> => {
      const before = await pushesDone(context);
      const session = await context.newCDPSession(page);
      const registrationId = await registrationOf(session);
      const waiting = (await arrivals()).slice(handed);
      for (const { text } of waiting) {
        handed += 1;
        await session.send('ServiceWorker.deliverPushMessage', {
          origin: porch.origin,
          registrationId,
          data: text ?? '',
        });
      }
      await expect.poll(() => pushesDone(context)).toBe(before + waiting.length);
      await session.detach();
    },
  };
};

/** What a page's device shows as alerts now: titles, words and buttons. */
export const alertsOn = (page: Page) =>
  page.evaluate(async () => {
    const registration = await navigator.serviceWorker.ready;
    return (await registration.getNotifications()).map((alert) => ({
      title: alert.title,
      body: alert.body,
      tag: alert.tag,
      data: alert.data as { talk: string | null },
      actions: (alert as unknown as { actions: { action: string; title: string }[] }).actions,
      hasIcon: alert.icon !== '',
    }));
  });
