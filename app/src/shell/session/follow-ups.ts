import { useQuery } from '@tanstack/react-query';
import { api } from './api';

/** What is owed, in lists and counts; told of with the entries that say so. */
export const followUpsKey = ['follow-ups'] as const;

const LOOK_EVERY_MS = 60_000;

/** How many of what is owed are late, up to a hundred; looked at anew as time goes by. */
export const useLateFollowUps = (): number =>
  useQuery({
    queryKey: [...followUpsKey, 'late'],
    queryFn: () => api.get<{ late: number }>('/api/follow-ups/late'),
    refetchInterval: LOOK_EVERY_MS,
    staleTime: LOOK_EVERY_MS,
  }).data?.late ?? 0;
