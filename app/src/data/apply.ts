import type { Row } from '@porch/contract/entries';
import type { RollPage } from '@porch/contract/team';
import type { Entry } from '@porch/core/conversation';
import type { QueryClient } from '@tanstack/react-query';
import { type GroupData, groups, withEntries, withRows } from './cache';
import { groupKey } from './line';
import { recent } from './recent';
import { rollKey } from './roll';

/** Writes what was told into every cached list and roll that it concerns. */
export const applyNews = (
  client: QueryClient,
  entries: readonly Entry[],
  rows: readonly Row[],
): void => {
  recent.note(entries, rows);
  for (const group of groups) {
    client.setQueryData<GroupData>(groupKey(group), (data) =>
      data ? withRows(data, group, rows) : data,
    );
  }
  for (const row of rows) {
    client.setQueryData<RollPage>(rollKey(row.id), (roll) =>
      roll ? withEntries(roll, entries, row) : roll,
    );
  }
};

/**
 * Too much was missed to replay it: everything on the screen is read anew. What is on no screen goes,
 * so that later news is not written into something with a gap.
 */
export const readAnew = (client: QueryClient): Promise<void> => {
  const predicate = ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey[0] !== 'house';
  client.removeQueries({ predicate, type: 'inactive' });
  return client.invalidateQueries({ predicate });
};
