import type { Row } from '@porch/contract/entries';
import type { Fit, Fits } from '@porch/contract/replies';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

const none: Fit[] = [];

/** What fits what somebody has said since they were answered; nothing where they were, or where nobody can be asked. */
export const useFits = (row: Row): Fit[] => {
  const { saidSeq, waitingSince } = row.state;
  const isOwed = waitingSince !== null || row.group === 'note';
  const asked = useQuery({
    queryKey: ['fits', row.id, saidSeq],
    queryFn: () => api.get<Fits>(`/api/conversations/${row.id}/fits`),
    enabled: isOwed,
    retry: false,
  });
  return (isOwed && asked.data?.fits) || none;
};
