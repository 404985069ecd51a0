import type {
  OrderChange,
  OrderPage,
  Orders,
  OrdersBeside,
  OrdersFound,
  OrdersTaken,
  OrderTyped,
} from '@porch/contract/orders';
import { orderKey } from '@porch/core/orders/key';
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { ApiError } from '../../../shell/session/refused';

/** Where a new order is written. */
export const NEW = 'new';

const KEY = ['orders'];
/** While a table is read in, it is looked how far it is. */
const LOOK_MS = 1_000;

/** The orders of the house, and its shop. */
export const useOrders = (isReading: boolean) =>
  useQuery({
    queryKey: KEY,
    queryFn: () => api.get<Orders>('/api/orders'),
    refetchInterval: ({ state }) => (isReading || state.data?.progress ? LOOK_MS : false),
  });

/** Orders one by one: the newest, or those that are sought. */
export const useOrderPages = (query: string) =>
  useInfiniteQuery({
    queryKey: [...KEY, 'pages', query],
    queryFn: ({ pageParam }) =>
      api.get<OrderPage>(`/api/orders/list?${new URLSearchParams({ query, after: pageParam })}`),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next,
    placeholderData: (before) => before,
  });

/** An order; null where it is not there any more. */
export const useOrder = (place: string | null) =>
  useQuery({
    queryKey: [...KEY, 'one', place],
    queryFn: () =>
      api.get<OrderTyped>(`/api/orders/one/${encodeURIComponent(place ?? '')}`).catch((error) => {
        if (error instanceof ApiError && error.status === 404) return null;
        throw error;
      }),
    enabled: place !== null,
    // What is being changed is not changed under anybody's hands.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

export const usePutOrder = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (change: OrderChange) => api.send<OrderTyped>('PUT', '/api/orders/one', change),
    onSuccess: () => queries.invalidateQueries({ queryKey: KEY }),
  });
};

export const useDropOrder = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (number: string) =>
      api.drop(`/api/orders/one/${encodeURIComponent(orderKey(number))}`),
    onSuccess: () => queries.invalidateQueries({ queryKey: [...KEY, 'pages'] }),
  });
};

/** Reads a table in. */
export const useTakeOrders = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => api.post<OrdersTaken>('/api/orders/table', file),
    onSettled: () => queries.invalidateQueries({ queryKey: KEY }),
  });
};

export const useDropOrders = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => api.drop('/api/orders'),
    onSettled: () => queries.invalidateQueries({ queryKey: KEY }),
  });
};

export const useSetShop = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (url: string) => api.send<Orders>('PUT', '/api/orders/shop', { url }),
    onSuccess: (orders) => queries.setQueryData(KEY, orders),
  });
};

/** The key by which the shop proves a request; fetched only where somebody wants to see it. */
export const useShopKey = () =>
  useMutation({ mutationFn: () => api.get<{ key: string | null }>('/api/orders/shop/key') });

export const useTryShop = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (number: string) =>
      api.send<OrdersFound>('POST', '/api/orders/shop/try', { number }),
    onSettled: () => queries.invalidateQueries({ queryKey: KEY }),
  });
};

/** Orders of whoever stands in a conversation; looked for anew when more was said. */
export const useOrdersBeside = (conversationId: string, seq: number) =>
  useQuery({
    queryKey: ['orders-beside', conversationId, seq],
    queryFn: () => api.get<OrdersBeside>(`/api/conversations/${conversationId}/orders`),
    placeholderData: (before) => before,
  });
