import type { MyDoorbell, TrialRing } from '@porch/contract/doorbell';
import type { Doorbell, RingOn } from '@porch/core/ringing';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { doorbellKey } from '../../../shell/session/doorbell';

const LOOK_EVERY_MS = 500;
/** So long somebody watches whether a ring arrives. */
export const ARRIVES_WITHIN_MS = 30_000;

/** Something of the doorbell that is another at once here, and as it was where the house refuses it. */
const useDoorbellChange = <Typed, Answer>(
  send: (typed: Typed) => Promise<Answer>,
  ahead: (known: MyDoorbell, typed: Typed) => MyDoorbell,
) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onMutate: async (typed: Typed) => {
      await client.cancelQueries({ queryKey: doorbellKey });
      const before = client.getQueryData<MyDoorbell>(doorbellKey);
      client.setQueryData<MyDoorbell>(doorbellKey, (known) => known && ahead(known, typed));
      return before;
    },
    onError: (_error, _typed, before) => client.setQueryData(doorbellKey, before),
    onSettled: () => client.invalidateQueries({ queryKey: doorbellKey }),
  });
};

/** Changes how one is rung. */
export const useChangeDoorbell = () =>
  useDoorbellChange(
    (doorbell: Doorbell) => api.send<Doorbell>('PUT', '/api/doorbell', doorbell),
    (known, doorbell) => ({ ...known, doorbell }),
  );

/** Changes what happens while nobody looks, for the whole team. */
export const useChangeRingOn = () =>
  useDoorbellChange(
    (ringOn: RingOn) => api.send<RingOn>('PUT', '/api/ring-on', ringOn),
    (known, ringOn) => ({ ...known, ringOn }),
  );

export const useMute = () =>
  useDoorbellChange(
    ({ id, isMuted }: { id: string; isMuted: boolean }) =>
      api.send<null>('PUT', `/api/bell-devices/${id}/mute`, { isMuted }),
    (known, { id, isMuted }) => ({
      ...known,
      devices: known.devices.map((one) => (one.id === id ? { ...one, isMuted } : one)),
    }),
  );

export const useRemoveDevice = () =>
  useDoorbellChange(
    (id: string) => api.drop(`/api/bell-devices/${id}`),
    (known, id) => ({ ...known, devices: known.devices.filter((one) => one.id !== id) }),
  );

/** Makes new keys where the old ones cannot be opened any more; every device is asked anew after it. */
export const useNewKeys = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.send<null>('POST', '/api/doorbell/new-keys', {}),
    onSettled: () => client.invalidateQueries({ queryKey: doorbellKey }),
  });
};

const trialKey = (deviceId: string) => ['trial-ring', deviceId] as const;

const isOver = (trial: TrialRing, now: number): boolean =>
  trial.arrivedAt !== null || now - trial.sentAt > ARRIVES_WITHIN_MS;

/** Lets a device ring, and watches how far that comes. */
export const useTrialRing = (deviceId: string, now: () => number) => {
  const client = useQueryClient();
  const begin = useMutation({
    mutationFn: () => api.send<TrialRing>('POST', `/api/bell-devices/${deviceId}/trial`, {}),
    onSuccess: (trial) => client.setQueryData(trialKey(deviceId), trial),
  });
  const trial = useQuery({
    queryKey: trialKey(deviceId),
    queryFn: () => api.get<TrialRing | null>(`/api/bell-devices/${deviceId}/trial`),
    enabled: begin.isSuccess,
    refetchInterval: ({ state }) =>
      state.data && isOver(state.data, now()) ? false : LOOK_EVERY_MS,
    // What an earlier look had says nothing of this one.
    staleTime: 0,
    gcTime: 0,
  });
  return { begin, trial: begin.isSuccess ? (trial.data ?? null) : null };
};
