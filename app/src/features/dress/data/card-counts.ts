import type { CardCount, CardCounts } from '@porch/contract/cards';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

/** How often each card of a door was tapped, and how often that was enough. */
export const useCardCounts = (doorId: string): ReadonlyMap<string, CardCount> => {
  const { data } = useQuery({
    queryKey: ['card-counts', doorId],
    queryFn: () => api.get<CardCounts>(`/api/doors/${doorId}/cards/counts`),
  });
  return new Map((data?.counts ?? []).map((one) => [one.cardId, one]));
};
