import type { RollPage } from '@porch/contract/line';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { rollKey } from '../../../shell/live/cache';
import { recent } from '../../../shell/live/recent';
import { api } from '../../../shell/session/api';

const read = (id: string, before?: number): Promise<RollPage> =>
  api.get(`/api/conversations/${id}${before === undefined ? '' : `?before=${before}`}`);

/** A conversation's row and the newest stretch of its roll; kept current by the live socket. */
export const useRoll = (id: string) =>
  useQuery({
    queryKey: rollKey(id),
    queryFn: async () => recent.ontoRoll(await read(id)),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useOlder = (id: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => {
      const first = client.getQueryData<RollPage>(rollKey(id))?.entries[0];
      return read(id, first?.seq);
    },
    onSuccess: (page) =>
      client.setQueryData<RollPage>(rollKey(id), (roll) =>
        roll
          ? {
              ...roll,
              entries: [...page.entries, ...roll.entries],
              receipts: [...page.receipts, ...roll.receipts],
              hasOlder: page.hasOlder,
            }
          : roll,
      ),
  });
};
