import type { BellDevice, MyDoorbell, NewBellDevice } from '@porch/contract/doorbell';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { api } from '../../../shell/session/api';
import {
  bellDeviceId,
  forgetBellDeviceId,
  keepBellDeviceId,
} from '../../../shell/session/bell-device';
import { doorbellKey } from '../../../shell/session/doorbell';
import { houseKey } from '../../../shell/session/house';
import { useInstalling } from '../../../shell/session/installing';
import { deviceName, platform } from '../../../shell/session/platform';
import { isFinal } from '../../../shell/session/refused';

/** Whether this device may ring, as its browser sees it. */
export type Permission = 'cannot' | 'install-first' | 'ask' | 'denied' | 'granted';

const useThisId = create<{ id: string | null }>(() => ({ id: null }));

const canRing = (): boolean =>
  'serviceWorker' in navigator && 'PushManager' in window && 'Notification' in window;

const permissionNow = (isInstalled: boolean): Permission => {
  // An iPhone has nothing of it until the app is on the home screen.
  if (platform() === 'iphone' && !isInstalled) return 'install-first';
  if (!canRing()) return 'cannot';
  return Notification.permission === 'default' ? 'ask' : Notification.permission;
};

/** Whether this device may ring; follows what is changed in the browser's own settings. */
export const usePermission = (): Permission => {
  const isInstalled = useInstalling((installing) => installing.isInstalled);
  const [permission, setPermission] = useState(() => permissionNow(isInstalled));
  useEffect(() => {
    const look = (): void => setPermission(permissionNow(isInstalled));
    look();
    let status: PermissionStatus | null = null;
    let isOver = false;
    void navigator.permissions?.query({ name: 'notifications' }).then(
      (found) => {
        if (isOver) return;
        status = found;
        found.addEventListener('change', look);
      },
      () => undefined,
    );
    document.addEventListener('visibilitychange', look);
    return () => {
      isOver = true;
      status?.removeEventListener('change', look);
      document.removeEventListener('visibilitychange', look);
    };
  }, [isInstalled]);
  return permission;
};

/** By which id this device rings; null: it does not. */
export const useThisDeviceId = (): string | null => {
  const id = useThisId((known) => known.id);
  useEffect(() => {
    void bellDeviceId().then((kept) => useThisId.setState({ id: kept }));
  }, []);
  return id;
};

const isSameKey = (subscription: PushSubscription, key: Uint8Array): boolean => {
  const known = subscription.options.applicationServerKey;
  return known !== null && String(new Uint8Array(known)) === String(key);
};

const toBytes = (base64url: string): Uint8Array<ArrayBuffer> => {
  const base64 = base64url.replaceAll('-', '+').replaceAll('_', '/');
  return Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
};

/** The browser has no way to be rung: its push service cannot be reached, or it has none. */
export class NoPushService extends Error {}

const subscribe = async (publicKey: string): Promise<NewBellDevice['subscription']> => {
  const { pushManager } = await navigator.serviceWorker.ready;
  const applicationServerKey = toBytes(publicKey);
  const known = await pushManager.getSubscription();
  // It was made for another house, or for keys that are gone: nothing of ours would be taken there.
  if (known && !isSameKey(known, applicationServerKey)) await known.unsubscribe();
  const wish = { userVisibleOnly: true, applicationServerKey };
  const made = await pushManager.subscribe(wish).catch(() => {
    throw new NoPushService();
  });
  const { endpoint, keys } = made.toJSON();
  return {
    endpoint: endpoint ?? '',
    keys: { p256dh: keys?.p256dh ?? '', auth: keys?.auth ?? '' },
  };
};

const put = async (id: string, publicKey: string, name: string): Promise<void> => {
  const subscription = await subscribe(publicKey);
  await api.send<BellDevice>('PUT', `/api/bell-devices/${id}`, { name, subscription });
  await keepBellDeviceId(id);
  useThisId.setState({ id });
};

/** Somebody said no, or closed the question. */
export class NotAllowed extends Error {}

/** Lets this device ring: asks for permission, which only a tap may do, and tells the house. */
export const useAllow = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (publicKey: string): Promise<void> => {
      if ((await Notification.requestPermission()) !== 'granted') throw new NotAllowed();
      await put((await bellDeviceId()) ?? nanoid(), publicKey, deviceName() || '?');
    },
    onSettled: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: doorbellKey }),
        client.invalidateQueries({ queryKey: houseKey }),
      ]),
  });
};

const forgetHere = async (): Promise<void> => {
  await forgetBellDeviceId();
  useThisId.setState({ id: null });
};

/** Sees to it that the house knows how this device is rung now: a browser changes that as it likes. */
const keepCurrent = async (): Promise<void> => {
  const id = await bellDeviceId();
  if (!id || !canRing()) return;
  const registration = await navigator.serviceWorker.getRegistration();
  const subscription = await registration?.pushManager.getSubscription();
  if (Notification.permission !== 'granted' || !subscription) {
    // It was withdrawn while the app was closed: nobody waits for rings that cannot come.
    await api.drop(`/api/bell-devices/${id}`).catch((error) => {
      if (!isFinal(error)) throw error;
    });
    return forgetHere();
  }
  const { devices } = await api.get<MyDoorbell>('/api/doorbell');
  // Somebody has removed it, here or on another device: it does not come back by itself.
  if (!devices.some((device) => device.id === id)) return forgetHere();
  const { endpoint, keys } = subscription.toJSON();
  const known = { endpoint, keys };
  await api
    .send('PUT', `/api/bell-devices/${id}`, { name: deviceName() || '?', subscription: known })
    .catch(async (error) => {
      if (isFinal(error)) await forgetHere();
    });
};

/** Nobody is signed in here: this device rings for nobody. */
export const leaveBell = (): void => {
  const leave = async (): Promise<void> => {
    await forgetHere();
    const registration = await navigator.serviceWorker?.getRegistration();
    await (await registration?.pushManager?.getSubscription())?.unsubscribe();
  };
  void leave().catch(() => undefined);
};

/** Keeps this device ringing while somebody is signed in, and forgets that it did when nobody is. Mount once. */
export const useBellDevice = (isSignedIn: boolean): void => {
  useEffect(() => {
    if (isSignedIn) void keepCurrent().catch(() => undefined);
  }, [isSignedIn]);
};
