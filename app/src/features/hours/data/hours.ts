import type { Holidays, Hours } from '@porch/contract/hours';
import type { PromisesShown } from '@porch/contract/promises';
import type { OpeningHours, Spans } from '@porch/core/hours/opening';
import type { Promises } from '@porch/core/promises';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { hoursKey } from '../../../shell/session/hours';

/** When the business is open. */
export const useHours = () =>
  useQuery({ queryKey: hoursKey, queryFn: () => api.get<Hours>('/api/hours') });

const useHoursChange = <Typed>(send: (typed: Typed) => Promise<Hours>) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (hours) => client.setQueryData(hoursKey, hours),
  });
};

/** Sets the hours of the house; null: none are set. */
export const useSetHours = () =>
  useHoursChange((hours: OpeningHours | null) => api.send<Hours>('PUT', '/api/hours', { hours }));

/** Gives a door a week of its own; null: it keeps the house's. */
export const useSetDoorHours = (doorId: string) =>
  useHoursChange((week: readonly Spans[] | null) =>
    api.send<Hours>('PUT', `/api/doors/${doorId}/hours`, { week }),
  );

const promisesKey = ['promises'] as const;

/** What is promised to whoever writes, and how long answers take. */
export const usePromises = () =>
  useQuery({ queryKey: promisesKey, queryFn: () => api.get<PromisesShown>('/api/promises') });

/** Changes a promise; shown at once, and as it was where the house refuses it. */
export const useSetPromises = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (promises: Promises) => api.send<PromisesShown>('PUT', '/api/promises', promises),
    onMutate: (promises) => {
      const before = client.getQueryData<PromisesShown>(promisesKey);
      client.setQueryData<PromisesShown>(promisesKey, (known) => known && { ...known, promises });
      return before;
    },
    onSuccess: (shown) => client.setQueryData(promisesKey, shown),
    onError: (_error, _promises, before) => client.setQueryData(promisesKey, before),
  });
};

/** The holidays of a place, and the parts it is divided into. */
export const useHolidays = (country: string, region: string) =>
  useQuery({
    queryKey: ['holidays', country, region],
    queryFn: () =>
      api.get<Holidays>(`/api/holidays?country=${country}&region=${encodeURIComponent(region)}`),
    enabled: country !== '',
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before) => before,
  });
