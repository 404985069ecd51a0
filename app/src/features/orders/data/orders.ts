import type { Orders, OrdersBeside, OrdersFound, OrdersTaken } from '@porch/contract/orders';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

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
