import type { TrialRing } from '@porch/contract/doorbell';
import type { Clock } from '../clock';

const REMEMBERED_MOST = 200;

/** Rings that somebody asked for, by device; forgotten with the process, as nobody looks twice. */
export const createTrials = (clock: Clock) => {
  const byDevice = new Map<string, TrialRing>();
  const change = (deviceId: string, ring: string, what: Partial<TrialRing>): boolean => {
    const known = byDevice.get(deviceId);
    if (known?.id !== ring) return false;
    byDevice.set(deviceId, { ...known, ...what });
    return true;
  };
  return {
    begin: (deviceId: string, ring: string): TrialRing => {
      if (byDevice.size >= REMEMBERED_MOST) byDevice.clear();
      const trial = { id: ring, sentAt: clock.now(), takenAt: null, arrivedAt: null, why: null };
      byDevice.set(deviceId, trial);
      return trial;
    },
    of: (deviceId: string): TrialRing | null => byDevice.get(deviceId) ?? null,
    taken: (deviceId: string, ring: string): void => {
      change(deviceId, ring, { takenAt: clock.now(), why: null });
    },
    failed: (deviceId: string, ring: string, why: string): void => {
      change(deviceId, ring, { why });
    },
    /** The device says that it came. False: nobody asked for it. */
    arrived: (deviceId: string, ring: string): boolean =>
      change(deviceId, ring, { arrivedAt: clock.now() }),
  };
};

export type Trials = ReturnType<typeof createTrials>;
