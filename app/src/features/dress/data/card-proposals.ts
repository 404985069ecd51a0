import type { CardProposal, CardProposals } from '@porch/contract/cards';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

const noProposals: readonly CardProposal[] = [];

/** Questions that keep coming at a door and have no card. */
export const useCardProposals = (doorId: string): readonly CardProposal[] => {
  const { data } = useQuery({
    queryKey: ['card-proposals', doorId],
    queryFn: () => api.get<CardProposals>(`/api/doors/${doorId}/cards/proposals`),
  });
  return data?.proposals ?? noProposals;
};
