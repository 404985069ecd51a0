import type { Row } from '@porch/contract/entries';
import type { LinePage } from '@porch/contract/line';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

const SHOWN_MOST = 8;
const groups = ['waiting', 'answered', 'note'] as const;

/** A few real people, those with a name first, to try a text with. */
export const useNewestPeople = () =>
  useQuery({
    queryKey: ['newest-people'],
    queryFn: async (): Promise<Row[]> => {
      const pages = await Promise.all(
        groups.map((group) => api.get<LinePage>(`/api/line?group=${group}`)),
      );
      const rows = pages.flatMap((page) => page.rows);
      const named = rows.filter(({ state }) => state.name);
      return [...named, ...rows.filter(({ state }) => !state.name)].slice(0, SHOWN_MOST);
    },
  });
