import type { DeadJobs } from '@porch/contract/jobs';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { houseKey } from '../../../shell/session/house';

const deadKey = ['dead-jobs'] as const;

/** What had to happen and was given up, the newest first; asked for once the house says that there is any. */
export const useDeadJobs = (count: number) =>
  useQuery({
    queryKey: [...deadKey, count],
    queryFn: () => api.get<DeadJobs>('/api/jobs/dead'),
    enabled: count > 0,
  });

/** Lets one be tried again, or leaves it. */
export const useDeadJob = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, isAgain }: { id: number; isAgain: boolean }): Promise<void> => {
      if (isAgain) await api.send<null>('POST', `/api/jobs/${id}/again`, {});
      else await api.drop(`/api/jobs/${id}`);
    },
    onSettled: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: houseKey }),
        client.invalidateQueries({ queryKey: deadKey }),
      ]),
  });
};
