import type { Business, Door, House, Member, SetUp, SignIn } from '@porch/contract/team';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from './api';

const houseKey = ['house'] as const;

/** Who is signed in here, and what house this is. */
export const useHouse = () =>
  useQuery({ queryKey: houseKey, queryFn: () => api.get<House>('/api/house'), staleTime: 60_000 });

/** The business's time zone; UTC until it is known. */
export const useZone = (): string => useHouse().data?.business?.zone ?? 'UTC';

export const useSignIn = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (typed: SignIn) => api.send<Member>('POST', '/api/sign-in', typed),
    onSuccess: () => client.invalidateQueries(),
  });
};

export const useSetUp = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (typed: SetUp) => api.send<Member>('POST', '/api/set-up', typed),
    onSuccess: () => client.invalidateQueries(),
  });
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

export const useSaveBusiness = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (business: Business) => api.send<Business>('PUT', '/api/business', business),
    onSuccess: () => client.invalidateQueries({ queryKey: houseKey }),
  });
};

export const useSaveSites = (doorId: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (sites: string[]) => api.send<Door>('PUT', `/api/doors/${doorId}`, { sites }),
    onSuccess: () => client.invalidateQueries({ queryKey: houseKey }),
  });
};
