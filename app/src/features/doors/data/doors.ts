import type { Door, DoorChange } from '@porch/contract/doors';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { useHouseChange } from '../../../shell/session/house';

/** Changes what an owner decides about a door; refused where somebody else may not. */
export const useChangeDoor = (doorId: string) =>
  useHouseChange((change: DoorChange) => api.send<Door>('PUT', `/api/doors/${doorId}`, change));

const keyOf = (doorId: string) => ['person-key', doorId] as const;

/** By which key a website signs who is signed in there; null: by none. */
export const usePersonKey = (doorId: string) =>
  useQuery({
    queryKey: keyOf(doorId),
    queryFn: async () =>
      (await api.get<{ key: string | null }>(`/api/doors/${doorId}/person-key`)).key,
  });

/** Makes another key; the one before it is good no more. */
export const useNewPersonKey = (doorId: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.send<{ key: string }>('POST', `/api/doors/${doorId}/person-key`, {}),
    onSuccess: ({ key }) => client.setQueryData(keyOf(doorId), key),
  });
};

/** Adds a website door; gives it as it is now. */
export const useNewDoor = () =>
  useHouseChange((door: { name: string; language: string }) =>
    api.send<Door>('POST', '/api/doors', door),
  );
