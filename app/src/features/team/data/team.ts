import type {
  Member,
  NewPairing,
  OneTimeLink,
  OpenLink,
  Pairing,
  Role,
  SeenLink,
} from '@porch/contract/people';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Cut } from '../../../shell/pictures/cutting';
import { sendPicture } from '../../../shell/pictures/send';
import { api } from '../../../shell/session/api';
import { houseKey, linksKey, useHouseChange } from '../../../shell/session/house';
import { isFinal } from '../../../shell/session/refused';

/** Every link by which somebody could still come in. */
export const useOpenLinks = () =>
  useQuery({ queryKey: linksKey, queryFn: () => api.get<OpenLink[]>('/api/links') });

export const useInvite = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (typed: { role: Role; name: string }) =>
      api.send<OneTimeLink>('POST', '/api/invites', typed),
    onSuccess: () => client.invalidateQueries({ queryKey: linksKey }),
  });
};

export const useWithdraw = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => api.drop(`/api/links/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: linksKey }),
  });
};

export const useNewPasswordLink = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      api.send<OneTimeLink>('POST', `/api/members/${id}/new-password-link`, {}),
    onSuccess: () => client.invalidateQueries({ queryKey: linksKey }),
  });
};

export const useMemberDeed = () =>
  useHouseChange(({ id, deed }: { id: string; deed: 'leave' | 'sign-out' }) =>
    api.send('POST', `/api/members/${id}/${deed}`, {}),
  );

export const useSetRole = () =>
  useHouseChange(({ id, role }: { id: string; role: Role }) =>
    api.send('PUT', `/api/members/${id}/role`, { role }),
  );

export const useChangeMe = () =>
  useHouseChange((me: { name: string; publicName: string }) =>
    api.send<Member>('PUT', '/api/me', me),
  );

export const useChangePassword = () =>
  useMutation({
    mutationFn: (typed: { old: string; new: string }) => api.send('PUT', '/api/me/password', typed),
  });

export const useLeave = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.send('POST', '/api/me/leave', {}),
    onSuccess: () => client.invalidateQueries({ queryKey: houseKey }),
  });
};

/** What a one-time link is for; asked once, as each look counts. */
export const useSeenLink = (token: string) =>
  useQuery({
    queryKey: ['link', token],
    queryFn: () => api.send<SeenLink>('POST', '/api/links/look', { token }),
    staleTime: Number.POSITIVE_INFINITY,
    enabled: token !== '',
  });

const LOOK_EVERY_MS = 1_000;

export const useNewPairing = () =>
  useMutation({ mutationFn: () => api.send<NewPairing>('POST', '/api/pairings', {}) });

/** How a code on this screen stands, looked at until it is settled. */
export const usePairing = (id: string | null) =>
  useQuery({
    queryKey: ['pairing', id],
    queryFn: () => api.get<Pairing>(`/api/pairings/${id}`),
    enabled: id !== null,
    refetchInterval: ({ state }) =>
      state.data && state.data.state !== 'waiting' && state.data.state !== 'asking'
        ? false
        : LOOK_EVERY_MS,
  });

export const useAnswerPairing = (id: string | null) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (isSame: boolean) =>
      api.send<Pairing>('POST', `/api/pairings/${id}/answer`, { isSame }),
    onSuccess: (pairing) => {
      client.setQueryData(['pairing', id], pairing);
      return client.invalidateQueries({ queryKey: houseKey });
    },
  });
};

/** The phone's side: opens the code once. */
export const useClaim = (secret: string) =>
  useQuery({
    queryKey: ['claim', secret],
    queryFn: () =>
      api.send<{ words: string; ticket: string }>('POST', '/api/pairings/claim', { token: secret }),
    staleTime: Number.POSITIVE_INFINITY,
    enabled: secret !== '',
  });

/** The phone's side: asks whether it may come in, until it knows. */
export const useCollect = (ticket: string | undefined) =>
  useQuery({
    queryKey: ['collect', ticket],
    queryFn: () =>
      api.send<Pick<Pairing, 'state'>>('POST', '/api/pairings/collect', { token: ticket }),
    enabled: ticket !== undefined,
    retry: false,
    refetchInterval: ({ state }) =>
      isFinal(state.error) || (state.data && state.data.state !== 'asking') ? false : LOOK_EVERY_MS,
  });

/** Sets one's own face, or takes it away. */
export const useFace = () =>
  useHouseChange((cut: Cut | null) => sendPicture('/api/me/picture', cut));
