import type {
  ShelfChange,
  ShelfNear,
  ShelfPage,
  ShelfShown,
  ShelfTables,
  ShelfTaken,
} from '@porch/contract/shelf';
import type { ShelfSaid } from '@porch/core/conversation';
import type { ShelfKind } from '@porch/core/shelf';
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { ApiError } from '../../../shell/session/refused';
import type { TableForm } from '../../../shell/tables/table-buttons';

const KEY = 'shelf';
/** While a file is read in, it is looked how far it is. */
const LOOK_MS = 1_000;

/** What stands on the shelf, of a kind or of all, in the order of its names or as it is found. */
export const useShelf = (kind: ShelfKind | null, query: string) =>
  useInfiniteQuery({
    queryKey: [KEY, 'page', kind, query],
    queryFn: ({ pageParam }) =>
      api.get<ShelfPage>(
        `/api/shelf?${new URLSearchParams({ query, after: pageParam, ...(kind ? { kind } : {}) })}`,
      ),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next,
    placeholderData: (before) => before,
  });

/** Something on the shelf; null where it is not there any more. */
export const useShelfThing = (id: string | null) =>
  useQuery({
    queryKey: [KEY, 'thing', id],
    queryFn: () =>
      api.get<ShelfShown>(`/api/shelf/${id}`).catch((error: unknown) => {
        if (error instanceof ApiError && error.status === 404) return null;
        throw error;
      }),
    enabled: id !== null,
    // What is being changed is not changed under anybody's hands.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

/** Which revision something has by now. */
export const revisionNow = async (id: string): Promise<number> =>
  (await api.get<ShelfShown>(`/api/shelf/${id}`)).revision;

const useChange = <Typed, Answer>(send: (typed: Typed) => Promise<Answer>) => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSettled: () => queries.invalidateQueries({ queryKey: [KEY] }),
  });
};

export const usePutThing = () =>
  useChange(({ id, ...change }: ShelfChange & { id: string }) =>
    api.send<ShelfShown>('PUT', `/api/shelf/${id}`, change),
  );

export const useDropThing = () => useChange((id: string) => api.drop(`/api/shelf/${id}`));

/** How far a file is that is being read in, and what became of the last. */
export const useShelfTables = (isReading: boolean) =>
  useQuery({
    queryKey: [KEY, 'tables'],
    queryFn: () => api.get<ShelfTables>('/api/shelf-tables'),
    refetchInterval: ({ state }) => (isReading || state.data?.progress ? LOOK_MS : false),
  });

export const shelfAddress = (form: TableForm): string => `/api/shelf-tables/written?as=${form}`;

export const useTakeShelf = () =>
  useChange(({ form, file }: { form: TableForm; file: File }) =>
    api.post<ShelfTaken>(`/api/shelf-tables?as=${form}`, file),
  );

export const useDropShelf = () => useChange(() => api.drop('/api/shelf-tables'));

/** What can be put into an answer in a conversation, as it would be said there. */
export const useShelfNear = (conversationId: string, query: string) =>
  useQuery({
    queryKey: [KEY, 'near', conversationId, query],
    queryFn: () =>
      api.get<ShelfNear>(
        `/api/conversations/${conversationId}/shelf?${new URLSearchParams({ query })}`,
      ),
    placeholderData: (before) => before,
  });

/** Something as it is said in a conversation, with its picture brought to the house where that lies elsewhere. */
export const readied = (conversationId: string, id: string): Promise<ShelfSaid> =>
  api.send<ShelfSaid>('POST', `/api/conversations/${conversationId}/shelf/${id}`, {});
