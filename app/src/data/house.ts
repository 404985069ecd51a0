import type { Row } from '@porch/contract/entries';
import type {
  Business,
  BusinessChange,
  Door,
  DoorChange,
  House,
  Join,
  Member,
  NewPassword,
  SetUp,
  SignIn,
} from '@porch/contract/team';
import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect } from 'react';
import { api } from './api';
import { deviceKind } from './device';

export const houseKey = ['house'] as const;

/** Who is signed in here, and what house this is. */
export const useHouse = () =>
  useQuery({ queryKey: houseKey, queryFn: () => api.get<House>('/api/house'), staleTime: 60_000 });

const LOOK_EVERY_MS = 60_000;

/** The same, looked at anew every minute: for the checklist, which says when it last looked. */
export const useWatchedHouse = () => {
  const { dataUpdatedAt, refetch } = useHouse();
  useEffect(() => {
    const timer = setInterval(() => void refetch(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [refetch]);
  return { dataUpdatedAt, refetch };
};

/** What a door is called, where there is more than one; empty where it says nothing new. */
export const useDoorNames = (): ((doorId: string) => string) => {
  const doors = useHouse().data?.doors;
  return useCallback(
    (doorId) =>
      doors && doors.length > 1 ? (doors.find(({ id }) => id === doorId)?.name ?? '') : '',
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

const useEntering = <Typed extends object>(path: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (typed: Typed) =>
      api.send<Member>('POST', path, { ...typed, device: deviceKind() }),
    onSuccess: () => client.invalidateQueries(),
  });
};

export const useSignIn = () => useEntering<SignIn>('/api/sign-in');
export const useSetUp = () => useEntering<SetUp>('/api/set-up');
export const useJoin = () => useEntering<Join>('/api/join');
export const useNewPassword = () => useEntering<NewPassword>('/api/new-password');

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

/** The owner has read what was found; it is not shown again. */
export const useFindingRead = () =>
  useHouseChange((kind: string) => api.drop(`/api/findings/${kind}`));

/** Whoever is signed in has seen that there were wrong tries at their account. */
export const useWarningSeen = () =>
  useHouseChange((_nothing: undefined) => api.drop('/api/me/warning'));

export const useChangeBusiness = () =>
  useHouseChange((change: BusinessChange) => api.send<Business>('PUT', '/api/business', change));

export const useChangeDoor = (doorId: string) =>
  useHouseChange((change: DoorChange) => api.send<Door>('PUT', `/api/doors/${doorId}`, change));

export const useNewDoor = () =>
  useHouseChange((door: { name: string; language: string }) =>
    api.send<Door>('POST', '/api/doors', door),
  );

export const useTick = () =>
  useHouseChange((tick: 'dark-texts' | 'team') => api.send('POST', '/api/ticks', { tick }));

/** The countries there are, and which one a time zone points to. */
export const useCountries = (zone: string) =>
  useQuery({
    queryKey: ['countries', zone],
    queryFn: () =>
      api.get<{ countries: string[]; guess: string | null }>(
        `/api/countries?zone=${encodeURIComponent(zone)}`,
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
