import type { Row } from '@porch/contract/entries';
import { callOf, type Surroundings } from '@porch/core/calling';
import { type ShownPage, shownPage } from '@porch/core/pages';
import { useMemo } from 'react';
import { useHouse } from '../../../shell/session/house';
import { calledInWords } from './called';

/** How people are called, and what may be shown of their pages, in this house. */
export const useCalling = () => {
  const house = useHouse().data;
  return useMemo(() => {
    const around = (row: Row): Surroundings => ({
      business: house?.business?.name ?? '',
      zone: house?.business?.zone ?? '',
      sites: house?.doors.find(({ id }) => id === row.doorId)?.sites ?? [],
    });
    return {
      nameOf: (row: Row): string => calledInWords(callOf(row.state, around(row))),
      pageOf: (row: Row, page: { url: string; title: string }): ShownPage =>
        shownPage(page, around(row)),
    };
  }, [house]);
};
