import type { Rest } from '@porch/contract/line';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

/** What else stood in the mail that an entry came in. It never changes. */
export const useRest = (conversationId: string, entryId: string) =>
  useQuery({
    queryKey: ['rest', conversationId, entryId],
    queryFn: (): Promise<Rest> =>
      api.get(`/api/conversations/${conversationId}/entries/${entryId}/rest`),
    staleTime: Number.POSITIVE_INFINITY,
  });
