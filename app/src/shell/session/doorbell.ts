import type { MyDoorbell } from '@porch/contract/doorbell';
import { useQuery } from '@tanstack/react-query';
import { api } from './api';

export const doorbellKey = ['doorbell'] as const;

/** How whoever is signed in here wants to be rung, on what, and what happens while nobody looks. */
export const useDoorbell = () =>
  useQuery({
    queryKey: doorbellKey,
    queryFn: () => api.get<MyDoorbell>('/api/doorbell'),
    staleTime: 60_000,
  });
