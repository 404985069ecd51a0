import type { PrecacheEntry } from 'workbox-precaching';

/** A window of ours, or one on our origin. */
export interface OwnWindow {
  url: string;
  visibilityState: string;
  focus(): Promise<unknown>;
  postMessage(message: unknown): void;
}

interface Lasting {
  /** Keeps the worker alive until it is over. */
  waitUntil(work: Promise<unknown>): void;
}

interface Happenings {
  push: Lasting & { data: { json(): unknown } | null };
  notificationclick: Lasting & { action: string; notification: Notification };
  sync: Lasting & { tag: string };
  message: Lasting & {
    data: { say?: string; talks?: readonly string[] } | null;
    ports: readonly MessagePort[];
  };
  pushsubscriptionchange: Lasting;
}

/** As much of a service worker's scope as is used here: TypeScript has types for it or for pages, not for both. */
export interface WorkerScope {
  /** What the app consists of; the build writes it in. */
  __WB_MANIFEST: PrecacheEntry[];
  /** Which build this is; the build writes it in. */
  __BUILD: string;
  navigator: Navigator;
  registration: ServiceWorkerRegistration & {
    /** Background Synchronization; not everywhere. */
    sync?: { register(tag: string): Promise<void> };
  };
  clients: {
    matchAll(which: {
      type: 'window';
      includeUncontrolled: boolean;
    }): Promise<readonly OwnWindow[]>;
    openWindow(path: string): Promise<unknown>;
  };
  skipWaiting(): Promise<void>;
  addEventListener<Kind extends keyof Happenings>(
    kind: Kind,
    heard: (event: Happenings[Kind]) => void,
  ): void;
}
