import type { AlertDeed, PushLoad, TrialLoad } from '@porch/core/ringing';
import { alertTag } from '../shell/live/alert-tag';
import { type AlertData, alertFor, pathOf } from './alerts';
import { type DeedRequest, requestFor } from './deeds';
import type { OwnWindow } from './scope';
import { words } from './words';

export interface Pictures {
  icon?: string;
  image?: string;
}

/** An alert only looks better with its pictures: it waits no longer for them. */
const PICTURES_LONGEST_MS = 4_000;

/** What the doorbell stands on in a browser; tests give another one. */
export interface Means {
  windows(): Promise<readonly Omit<OwnWindow, 'url'>[]>;
  openWindow(path: string): Promise<unknown>;
  show(title: string, options: NotificationOptions): Promise<void>;
  shown(tag: string): Promise<readonly { close(): void }[]>;
  badge(waiting: number): void;
  /** Whether each push has to show something, or the platform forbids further ones. */
  mustShow: boolean;
  /** Pictures for an alert: who it is, and what they sent. */
  pictures(load: PushLoad): Promise<Pictures>;
  wait(ms: number): Promise<void>;
  /** By which id this device rings; null: it does not know. */
  deviceId(): Promise<string | null>;
  /** The status of the answer; 0: there was none. */
  ask(request: DeedRequest): Promise<number>;
  /** Keeps a request until there is signal. */
  later(request: DeedRequest): Promise<void>;
  now(): number;
  /** The time by the house's clock, in which moments are said; this device's own where it cannot be asked. */
  houseNow(): Promise<number>;
}

const isWorthRetrying = (status: number): boolean =>
  status === 0 || status === 401 || status === 408 || status === 429 || status >= 500;

/** What the service worker does with pushes and with taps on what it showed for them. */
export const createRinging = (means: Means) => {
  const isInSight = async (): Promise<boolean> =>
    (await means.windows()).some(({ visibilityState }) => visibilityState === 'visible');

  const picturesFor = async (load: PushLoad): Promise<Pictures> => {
    const late = means.wait(PICTURES_LONGEST_MS).then((): Pictures => ({}));
    return Promise.race([means.pictures(load), late]).catch((): Pictures => ({}));
  };

  const showFor = async (load: PushLoad): Promise<void> => {
    const alert = alertFor(load, means.now());
    if (!alert) return;
    const pictures = await picturesFor(load);
    await means.show(alert.title, { ...alert.options, ...pictures });
  };

  const hush = async (load: PushLoad & { say: 'hush' }): Promise<void> => {
    const alerts = await means.shown(alertTag(load.talk));
    if (means.mustShow && alerts.length > 0) {
      // Where nothing may come without being shown, the alert says that it is settled instead of going.
      const tag = alertTag(load.talk);
      const data: AlertData = { ring: '', talk: load.talk, shortReply: '' };
      await means.show(words().answered(load.by), { tag, data, silent: true });
      return;
    }
    for (const alert of alerts) alert.close();
  };

  const close = async (talks: readonly string[]): Promise<void> => {
    for (const talk of talks) {
      for (const alert of await means.shown(alertTag(talk))) alert.close();
    }
  };

  const tellArrived = async ({ ring }: TrialLoad): Promise<void> => {
    const id = await means.deviceId();
    if (!id) return;
    const path = `/api/bell-devices/${id}/arrived`;
    await means.ask({ method: 'POST', path, body: { ring }, lane: null });
  };

  const open = async (path: string): Promise<void> => {
    const [window] = await means.windows();
    if (!window) {
      await means.openWindow(path);
      return;
    }
    window.postMessage({ say: 'open', path });
    // Some platforms let nobody but a person bring a window to the front.
    await window.focus().catch(() => undefined);
  };

  const doIt = async (request: DeedRequest): Promise<void> => {
    const status = await means.ask(request);
    if (status >= 200 && status < 300) return;
    const talk = request.lane;
    const data: AlertData = { ring: '', talk, shortReply: '' };
    if (isWorthRetrying(status) && talk !== null) {
      await means.later(request);
      const { title, body } = words().waits;
      await means.show(title, { body, tag: alertTag(talk), data, silent: true });
      return;
    }
    const { title, body } = words().refused;
    await means.show(title, { body, tag: talk ? alertTag(talk) : 'refused', data, silent: true });
  };

  const take = async (load: PushLoad): Promise<void> => {
    if (load.say === 'hush') await hush(load);
    // Whoever has the app in sight hears it there, and sees it in the line.
    else if (load.say === 'trial' || means.mustShow || !(await isInSight())) await showFor(load);
    if ('waiting' in load) means.badge(load.waiting);
  };

  let last: Promise<void> = Promise.resolve();

  /** Each after the one before: what is taken back is never shown after that by one that took longer. */
  const inTurn = (work: () => Promise<void>): Promise<void> => {
    last = last.catch(() => undefined).then(work);
    return last;
  };

  return {
    pushed: async (load: PushLoad): Promise<void> => {
      await inTurn(() => take(load));
      if (load.say === 'trial') await tellArrived(load);
    },
    /** The app has heard that somebody looked. */
    looked: (talks: readonly string[]): Promise<void> => inTurn(() => close(talks)),
    tapped: async (deed: AlertDeed | '', data: AlertData): Promise<void> => {
      const request =
        deed && deed !== 'open' ? requestFor(deed, data, await means.houseNow()) : null;
      if (request) await doIt(request);
      else await open(pathOf(data));
    },
  };
};
