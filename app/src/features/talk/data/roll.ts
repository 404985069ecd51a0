import type { RollPage } from '@porch/contract/line';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { rollKey } from '../../../shell/live/cache';
import { readRoll, rollOf } from '../../../shell/live/roll';

/** A conversation's row and the newest stretch of its roll. */
export const useRoll = (id: string) => useQuery(rollOf(id));

export const useOlder = (id: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => {
      const first = client.getQueryData<RollPage>(rollKey(id))?.entries[0];
      return readRoll(id, first?.seq);
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
