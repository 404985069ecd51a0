import { create } from 'zustand';
import { buildName } from './build-name';

const LOOK_EVERY_MS = 60 * 60_000;

/** A newer app that waits on this device until whoever uses it has a moment. */
export const useNewVersion = create<{ waiting: ServiceWorker | null }>(() => ({ waiting: null }));

let isWanted = false;

/** Which build a worker belongs to, as it says itself. */
const buildOf = (worker: ServiceWorker): Promise<string> =>
  new Promise((told) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = ({ data }) => told(String(data));
    worker.postMessage({ say: 'which-build' }, [port2]);
  });

const takeOver = (worker: ServiceWorker): void => worker.postMessage({ say: 'take-over' });

/** A worker has come beside the one that runs: either this page is as new already, or it is told of. */
const waits = async (worker: ServiceWorker): Promise<void> => {
  if ((await buildOf(worker)) === buildName()) takeOver(worker);
  else useNewVersion.setState({ waiting: worker });
};

/** Lets the newer app take the place of this one. What is half written is kept on the device. */
export const takeNewVersion = (): void => {
  const { waiting } = useNewVersion.getState();
  if (!waiting) return;
  isWanted = true;
  takeOver(waiting);
};

/** Watches for a newer app from now on. */
export const watchVersions = (registration: ServiceWorkerRegistration | undefined): void => {
  if (!registration) return;
  const { serviceWorker } = navigator;
  if (registration.waiting && serviceWorker.controller) void waits(registration.waiting);
  registration.addEventListener('updatefound', () => {
    const coming = registration.installing;
    coming?.addEventListener('statechange', () => {
      // The first one ever replaces nothing.
      if (coming.state === 'installed' && serviceWorker.controller) void waits(coming);
    });
  });
  serviceWorker.addEventListener('controllerchange', () => {
    if (isWanted) location.reload();
  });
  setInterval(() => void registration.update().catch(() => undefined), LOOK_EVERY_MS);
};
