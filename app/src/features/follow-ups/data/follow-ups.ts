import type { Row } from '@porch/contract/entries';
import type { Feed, FollowUpsPage, NewFeed, OwedShown } from '@porch/contract/follow-ups';
import type { Owed } from '@porch/core/conversation';
import type { FollowUp } from '@porch/core/promises';
import {
  type InfiniteData,
  type QueryClient,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';
import { useMemo } from 'react';
import { outbox } from '../../../shell/live/outbox';
import { api } from '../../../shell/session/api';
import { followUpsKey } from '../../../shell/session/follow-ups';

export type Which = 'due' | 'done';

const listKey = (which: Which) => [...followUpsKey, which] as const;
const pathOf: Record<Which, string> = { due: '/api/follow-ups', done: '/api/follow-ups/done' };

/** What is owed, the first due first; or what is done, the last done first. */
export const useFollowUps = (which: Which) =>
  useInfiniteQuery({
    queryKey: listKey(which),
    queryFn: ({ pageParam }) =>
      api.get<FollowUpsPage>(pathOf[which] + (pageParam ? `?after=${pageParam}` : '')),
    initialPageParam: null as string | null,
    getNextPageParam: (page) => page.next,
  });

/** One of them as it is now, or gone from the open ones: shown before the house has said so. */
const putInList = (client: QueryClient, id: string, next: FollowUp | null): void => {
  const changed = (owed: readonly OwedShown[]): OwedShown[] =>
    owed.flatMap((one) => {
      if (one.followUp.id !== id) return [one];
      return next ? [{ ...one, followUp: next }] : [];
    });
  client.setQueryData<InfiniteData<FollowUpsPage>>(
    listKey('due'),
    (data) =>
      data && { ...data, pages: data.pages.map((page) => ({ ...page, owed: changed(page.owed) })) },
  );
};

const owedOf = ({ what, dueAt, remindAt, whose }: FollowUp): Owed => ({
  what,
  dueAt,
  remindAt,
  whose,
});

/** What can be done with what is owed. Each goes out by the outbox; what can be undone gives the deed's id. */
export const useOwing = () => {
  const client = useQueryClient();
  return useMemo(
    () => ({
      owe: (row: Row, owed: Owed): string => outbox.add(row.id, { do: 'owe', ...owed, files: [] }),
      /** It was not meant to be owed at all. */
      forget: (row: Row, of: string): string =>
        outbox.add(row.id, { do: 'owe-done', of, files: [] }),
      change: ({ row, followUp }: OwedShown, part: Partial<Owed>): string => {
        const next = { ...owedOf(followUp), ...part };
        putInList(client, followUp.id, { ...followUp, ...next });
        return outbox.add(row.id, { do: 'owe-otherwise', of: followUp.id, ...next, files: [] });
      },
      done: ({ row, followUp }: OwedShown): string => {
        putInList(client, followUp.id, null);
        return outbox.add(row.id, { do: 'owe-done', of: followUp.id, files: [] });
      },
      again: ({ row, followUp }: OwedShown): string =>
        outbox.add(row.id, { do: 'owe-again', of: followUp.id, files: [] }),
    }),
    [client],
  );
};

const feedKey = ['feed'] as const;

/** Whether there is an address by which a calendar program reads one's follow-ups. */
export const useFeed = () =>
  useQuery({ queryKey: feedKey, queryFn: () => api.get<Feed>('/api/me/feed') });

export const useMakeFeed = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (password: string) => api.send<NewFeed>('POST', '/api/me/feed', { password }),
    onSuccess: () => client.invalidateQueries({ queryKey: feedKey }),
  });
};

export const useDropFeed = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.drop('/api/me/feed'),
    onSuccess: () => client.invalidateQueries({ queryKey: feedKey }),
  });
};
