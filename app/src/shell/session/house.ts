import type { Door, FormerDoor, Plate } from '@porch/contract/doors';
import type { Row } from '@porch/contract/entries';
import type { House } from '@porch/contract/house';
import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { api } from './api';

export const houseKey = ['house'] as const;
/** Every link by which somebody could still come in; told of together with the house. */
export const linksKey = ['links'] as const;

/** Who is signed in here, and what house this is. */
export const useHouse = () =>
  useQuery({ queryKey: houseKey, queryFn: () => api.get<House>('/api/house'), staleTime: 60_000 });

type AnyDoor = FormerDoor & Partial<Pick<Door, 'can'>>;

const noDoors: readonly AnyDoor[] = [];

/** Those that were taken away as well: what was said by them can still be read. */
const useAllDoors = (): readonly AnyDoor[] => {
  const { doors, formerDoors } = useHouse().data ?? {};
  // A house that was kept by an earlier version knows of none.
  return useMemo(() => [...(doors ?? noDoors), ...(formerDoors ?? noDoors)], [doors, formerDoors]);
};

/** What a door is called, where there is more than one; empty where it says nothing new. */
export const useDoorNames = (): ((doorId: string) => string) => {
  const doors = useAllDoors();
  return useCallback(
    (doorId) => (doors.length > 1 ? (doors.find(({ id }) => id === doorId)?.name ?? '') : ''),
    [doors],
  );
};

/** What is drawn on a door's plate, and for how long its network lets somebody be answered; null: always. */
export const useDoorFacts = () => {
  const doors = useAllDoors();
  return useCallback(
    (doorId: string): { plate: Plate; windowMs: number | null } | null => {
      const door = doors.find(({ id }) => id === doorId);
      return door ? { plate: door.plate, windowMs: door.can?.windowMs ?? null } : null;
    },
    [doors],
  );
};

/** Whether a door stands on websites: what is said there is shown on a page of ours. As long as none is known, each does. */
export const useIsSite = (): ((doorId: string) => boolean) => {
  const doors = useHouse().data?.doors;
  return useCallback(
    (doorId) => !doors || doors.some(({ id, isCarried }) => id === doorId && !isCarried),
    [doors],
  );
};

/** The business's time zone; UTC until it is known. */
export const useZone = (): string => useHouse().data?.business?.zone ?? 'UTC';

/** Whether any of the conversations came by a door that concerns whoever is signed in here. */
export const isForMe = (
  client: QueryClient,
  rows: readonly Row[],
  conversationIds: readonly string[],
): boolean => {
  const house = client.getQueryData<House>(houseKey);
  const mine = (doorId: string): boolean => {
    const memberIds = house?.doors.find(({ id }) => id === doorId)?.memberIds;
    return !memberIds || memberIds.includes(house?.me?.id ?? '');
  };
  return rows.some(({ id, doorId }) => conversationIds.includes(id) && mine(doorId));
};

export const useSignOut = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (everywhere: boolean) => api.send('POST', '/api/sign-out', { everywhere }),
    onSuccess: async () => {
      client.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== houseKey[0] });
      await client.invalidateQueries({ queryKey: houseKey });
    },
  });
};

/** A change of the house, after which everybody reads it anew. */
export const useHouseChange = <Typed, Answer = unknown>(
  change: (typed: Typed) => Promise<Answer>,
) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => client.invalidateQueries({ queryKey: houseKey }),
  });
};
