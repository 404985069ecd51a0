import type { Row } from '@porch/contract/entries';
import type { RollPage } from '@porch/contract/line';
import { notifyManager, type QueryClient } from '@tanstack/react-query';
import { api } from '../session/api';
import { type GroupData, rollKey, stretches, stretchKey } from './cache';
import { recent } from './recent';

export const readRoll = (id: string, before?: number): Promise<RollPage> =>
  api.get(`/api/conversations/${id}${before === undefined ? '' : `?before=${before}`}`);

/** A conversation's row and the newest stretch of its roll; kept current by the live socket. */
export const rollOf = (id: string) => ({
  queryKey: rollKey(id),
  queryFn: async (): Promise<RollPage> => recent.ontoRoll(await readRoll(id)),
  staleTime: Number.POSITIVE_INFINITY,
});

/** So many conversations can be read without signal, whether somebody has opened them here or not. */
export const ROLLS_AHEAD = 50;

/** The conversations of the line in which anything was said last. */
const newestRows = (client: QueryClient): Row[] =>
  stretches
    .flatMap((stretch) => client.getQueryData<GroupData>(stretchKey(stretch))?.rows ?? [])
    .sort((a, b) => b.state.lastAt - a.state.lastAt)
    .slice(0, ROLLS_AHEAD);

/**
 * Reads the newest conversations that are not here yet, one after another, so that they can be read without signal.
 * They are put into the cache together: what is kept on the device is written whole each time it changes.
 */
export const readAhead = async (client: QueryClient, mayGoOn: () => boolean): Promise<void> => {
  const missing = newestRows(client).filter(({ id }) => !client.getQueryData(rollKey(id)));
  const read: [string, RollPage][] = [];
  for (const { id } of missing) {
    if (!mayGoOn()) break;
    const roll = await rollOf(id)
      .queryFn()
      .catch(() => null);
    if (!roll) break;
    read.push([id, roll]);
  }
  notifyManager.batch(() => {
    for (const [id, roll] of read) {
      // Whoever opened it meanwhile has more of it, and what came while this was on its way is news to it.
      client.setQueryData<RollPage>(rollKey(id), (known) => known ?? recent.ontoRoll(roll));
    }
  });
};
