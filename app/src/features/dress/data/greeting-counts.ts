import type { GreetingCount, GreetingCounts } from '@porch/contract/greetings';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

/** How often each greeting of a door was seen, and how often it was answered. */
export const useGreetingCounts = (doorId: string): ReadonlyMap<string, GreetingCount> => {
  const { data } = useQuery({
    queryKey: ['greeting-counts', doorId],
    queryFn: () => api.get<GreetingCounts>(`/api/doors/${doorId}/greetings/counts`),
  });
  return new Map((data?.counts ?? []).map((one) => [one.greetingId, one]));
};
