import { useQuery } from '@tanstack/react-query';
import { api } from './api';

/** The countries there are, and which one a time zone points to. */
export const useCountries = (zone: string) =>
  useQuery({
    queryKey: ['countries', zone],
    queryFn: () =>
      api.get<{ countries: string[]; guess: string | null }>(
        `/api/countries?zone=${encodeURIComponent(zone)}`,
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
