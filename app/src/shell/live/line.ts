import type { LinePage } from '@porch/contract/line';
import type { QueryClient } from '@tanstack/react-query';
import { api } from '../session/api';
import { type GroupData, type Stretch, stretchKey } from './cache';
import { recent } from './recent';
import { live } from './store';

/** A page of a stretch of the line, from its top or from behind a row; what it says of the whole is noted. */
export const readStretch = async (
  { view, group }: Stretch,
  after: string | null,
): Promise<LinePage> => {
  const asked = new URLSearchParams({ view, group, ...(after ? { after } : undefined) });
  const page = await api.get<LinePage>(`/api/line?${asked}`);
  live.learn(view, page);
  return page;
};

/** The top of a stretch, as the cache asks for it. */
export const topOf = (stretch: Stretch) => ({
  queryKey: stretchKey(stretch),
  queryFn: async (): Promise<GroupData> => {
    const { rows, next } = await readStretch(stretch, null);
    return recent.ontoGroup({ rows, next }, stretch);
  },
});

/** Reads the top of the line once, so that the live socket knows from where to go on. */
export const readTop = (client: QueryClient): Promise<GroupData> =>
  client.fetchQuery({ ...topOf({ view: 'all', group: 'waiting' }), staleTime: 0 });
