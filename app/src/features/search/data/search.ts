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

const KEY = 'porch:sought';

/** What was sought last in this tab: a reload and the way back from what was found come to it again. */
export const soughtBefore = (): string => {
  try {
    return sessionStorage.getItem(KEY) ?? '';
  } catch {
    return '';
  }
};

export const noteSought = (words: string): void => {
  try {
    sessionStorage.setItem(KEY, words);
  } catch {
    // Forbidden: the words are gone with the page.
  }
};

/** Nobody is signed in any more. */
export const forgetSought = (): void => noteSought('');
