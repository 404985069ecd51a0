import type { Row } from '@porch/contract/entries';
import type { PromisesShown } from '@porch/contract/promises';
import { firstNameOf, type GapFacts } from '@porch/core/replies';
import { localeOf, minutesIn, momentIn } from '@porch/core/when';
import { useQuery } from '@tanstack/react-query';
import { useCallback } from 'react';
import { serverNow, useLive } from '../../../shell/live/store';
import { api } from '../../../shell/session/api';
import { useHouse } from '../../../shell/session/house';
import { useCalling } from '../../persons/parts/calling';

const HOUR_MS = 3_600_000;

/** How long an answer usually takes, in minutes; asked for once an hour at most. */
const useUsual = (): number | null =>
  useQuery({
    queryKey: ['promises'],
    queryFn: () => api.get<PromisesShown>('/api/promises'),
    staleTime: HOUR_MS,
  }).data?.usualMinutes ?? null;

/** What is known to fill gaps with: of somebody (null: nobody in particular), of the house, of whoever answers. */
export const useGapFacts = (): ((row: Row | null, language: string) => GapFacts) => {
  const { business, me } = useHouse().data ?? {};
  const lamp = useLive((state) => state.lamp);
  const usual = useUsual();
  const { pageOf } = useCalling();
  return useCallback(
    (row, language) => {
      const page = row?.state.page ? pageOf(row, row.state.page) : null;
      const opensAt = lamp?.opensNext ?? (lamp?.state === 'lit' ? null : (lamp?.until ?? null));
      // They read it by their own clock, where that is known.
      const zone = row?.state.zone || business?.zone;
      return {
        'first name': row ? firstNameOf(row.state.name) : null,
        business: business?.name || null,
        'my name': me?.publicName || me?.name || null,
        'next opening':
          opensAt === null
            ? null
            : momentIn(
                { locale: localeOf(language, business?.country ?? ''), zone },
                opensAt,
                serverNow(),
              ),
        'usual answer time': usual === null ? null : minutesIn(language, usual),
        page: page?.title || null,
      };
    },
    [business, me, lamp, usual, pageOf],
  );
};
