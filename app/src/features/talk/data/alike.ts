import type { Row } from '@porch/contract/entries';
import type { Alike } from '@porch/contract/line';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

const keyOf = (id: string) => ['alike', id] as const;

/** Who may be the same person as this one, and why; asked anew once more is known of them. */
export const useAlike = ({ id, threads, state }: Row) =>
  useQuery({
    queryKey: [...keyOf(id), threads.length, state.name, state.email, state.phone],
    queryFn: async (): Promise<Alike[]> =>
      (await api.get<{ alike: Alike[] }>(`/api/conversations/${id}/alike`)).alike,
    staleTime: 30_000,
  });

/** Says that two are two people: they are not proposed again. */
export const useNotSame = (id: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (otherId: string) =>
      api.send<null>('PUT', `/api/conversations/${id}/not-same/${otherId}`, {}),
    onSuccess: () => client.invalidateQueries({ queryKey: keyOf(id) }),
  });
};
