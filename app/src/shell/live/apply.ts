import type { Row } from '@porch/contract/entries';
import type { RollPage } from '@porch/contract/line';
import type { Entry } from '@porch/core/conversation';
import type { QueryClient } from '@tanstack/react-query';
import {
  type GroupData,
  rollKey,
  stretches,
  stretchKey,
  withEntries,
  withoutRow,
  withRows,
} from './cache';
import { recent } from './recent';

/** A conversation that stands nowhere in the line any more. */
export const dropRow = (client: QueryClient, id: string): void => {
  recent.forgetRow(id);
  for (const stretch of stretches) {
    client.setQueryData<GroupData>(stretchKey(stretch), (data) =>
      data ? withoutRow(data, id) : data,
    );
  }
};

/** Whose roll is another than it was: what was said moved from one conversation to another. */
const moved = (client: QueryClient, entries: readonly Entry[], rows: readonly Row[]): void => {
  for (const entry of entries) {
    if (entry.kind !== 'joined' && entry.kind !== 'parted') continue;
    const other = entry.kind === 'joined' ? entry.from : entry.other;
    // Unless it was parted again since.
    const isGone = entry.kind === 'joined' && !rows.some(({ id }) => id === other);
    if (isGone) dropRow(client, other);
    for (const id of [entry.conversationId, other]) {
      void client.invalidateQueries({ queryKey: rollKey(id) });
    }
  }
};

/** Writes what was told into every cached list and roll that it concerns. */
export const applyNews = (
  client: QueryClient,
  entries: readonly Entry[],
  rows: readonly Row[],
): void => {
  recent.note(entries, rows);
  for (const stretch of stretches) {
    client.setQueryData<GroupData>(stretchKey(stretch), (data) =>
      data ? withRows(data, stretch, rows) : data,
    );
  }
  for (const row of rows) {
    client.setQueryData<RollPage>(rollKey(row.id), (roll) =>
      roll ? withEntries(roll, entries, row) : roll,
    );
  }
  moved(client, entries, rows);
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
