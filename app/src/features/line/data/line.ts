import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type GroupData, type Stretch, stretchKey, withPage } from '../../../shell/live/cache';
import { readStretch, topOf } from '../../../shell/live/line';

/** One group of a view of the line, from its top; kept current by the live socket. */
export const useStretch = (stretch: Stretch, isOpen: boolean) =>
  useQuery({ ...topOf(stretch), enabled: isOpen, staleTime: Number.POSITIVE_INFINITY });

/** Reads what lies behind as much of it as is here. */
export const useMore = (stretch: Stretch) => {
  const client = useQueryClient();
  const key = stretchKey(stretch);
  return useMutation({
    mutationFn: () => readStretch(stretch, client.getQueryData<GroupData>(key)?.next ?? null),
    onSuccess: (page) =>
      client.setQueryData<GroupData>(key, (data) => (data ? withPage(data, page) : data)),
  });
};
