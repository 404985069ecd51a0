import type { LinePage } from '@porch/contract/team';
import type { Group } from '@porch/core/conversation';
import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from './api';
import { type GroupData, withPage } from './cache';
import { live } from './live-store';
import { recent } from './recent';

export const groupKey = (group: Group) => ['line', group] as const;

const read = async (group: Group, after: string | null): Promise<LinePage> => {
  const behind = after ? `&after=${encodeURIComponent(after)}` : '';
  const page = await api.get<LinePage>(`/api/line?group=${group}${behind}`);
  live.learn(page);
  return page;
};

const query = (group: Group) => ({
  queryKey: groupKey(group),
  queryFn: async (): Promise<GroupData> => {
    const { rows, next } = await read(group, null);
    return recent.ontoGroup({ rows, next }, group);
  },
});

/** One group of the line, from its top; kept current by the live socket. */
export const useGroup = (group: Group, isOpen: boolean) =>
  useQuery({ ...query(group), enabled: isOpen, staleTime: Number.POSITIVE_INFINITY });

/** Reads the top of the line once, so that the live socket knows from where to go on. */
export const readTop = (client: QueryClient): Promise<GroupData> =>
  client.fetchQuery({ ...query('waiting'), staleTime: 0 });

export const useMore = (group: Group) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => {
      const data = client.getQueryData<GroupData>(groupKey(group));
      return read(group, data?.next ?? null);
    },
    onSuccess: (page) =>
      client.setQueryData<GroupData>(groupKey(group), (data) =>
        data ? withPage(data, page) : data,
      ),
  });
};
