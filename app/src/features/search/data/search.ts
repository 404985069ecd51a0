import type { SearchPage } from '@porch/contract/line';
import { useInfiniteQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

/** Everything ever said that has these words, the newest stretch first. */
export const useSearch = (words: string) =>
  useInfiniteQuery({
    queryKey: ['search', words],
    queryFn: ({ pageParam }) =>
      api.get<SearchPage>(
        `/api/search?words=${encodeURIComponent(words)}${pageParam === null ? '' : `&before=${pageParam}`}`,
      ),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.next,
    enabled: words.trim() !== '',
    placeholderData: (before) => before,
  });
