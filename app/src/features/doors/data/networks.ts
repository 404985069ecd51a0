import type { NetworkDoor, NetworkKind } from '@porch/contract/doors';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { houseKey } from '../../../shell/session/house';

type Given = Readonly<Record<string, string>>;

const doorKey = (id: string) => ['network-door', id] as const;
const LOOK_EVERY_MS = 3_000;

/** Kinds of networks to which a door can be opened. */
export const useNetworkKinds = () =>
  useQuery({
    queryKey: ['network-kinds'],
    queryFn: async () => (await api.get<{ kinds: NetworkKind[] }>('/api/network-doors')).kinds,
    staleTime: Number.POSITIVE_INFINITY,
  });

/** How a door to a network is connected; looked at anew while it is in sight, for somebody may just write by it. */
export const useNetworkDoor = (id: string) =>
  useQuery({
    queryKey: doorKey(id),
    queryFn: () => api.get<NetworkDoor>(`/api/network-doors/${id}`),
    refetchInterval: LOOK_EVERY_MS,
  });

const useDoorDeed = <Typed>(deed: (typed: Typed) => Promise<NetworkDoor>) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: deed,
    onSuccess: (door) => {
      client.setQueryData(doorKey(door.id), door);
      return client.invalidateQueries({ queryKey: houseKey });
    },
  });
};

export const useMakeNetworkDoor = () =>
  useDoorDeed((typed: { kind: string; name: string; given: Given }) =>
    api.send<NetworkDoor>('POST', '/api/network-doors', typed),
  );

export const useSetNetworkDoor = (id: string) =>
  useDoorDeed((given: Given) =>
    api.send<NetworkDoor>('PUT', `/api/network-doors/${id}`, { given }),
  );

/** Asks the network whether all is well; what it answers is not kept as how the door is. */
export const useCheckNetworkDoor = (id: string) =>
  useDoorDeed(() => api.send<NetworkDoor>('POST', `/api/network-doors/${id}/check`, {}));

export const useRenewKey = (id: string) =>
  useDoorDeed(() => api.send<NetworkDoor>('POST', `/api/network-doors/${id}/key`, {}));

/** Takes a door away; what was said by it stays. */
export const useRemoveDoor = (id: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.drop(`/api/network-doors/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: houseKey }),
  });
};
