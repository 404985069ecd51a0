import type { Row } from '@porch/contract/entries';
import { type Call, callOf, type Surroundings } from '@porch/core/calling';
import { type ShownPage, shownPage } from '@porch/core/pages';
import { useMemo } from 'react';
import { useHouse } from '../../../shell/session/house';
import { words } from '../words';

const inWords = (call: Call): string => {
  switch (call.by) {
    case 'page':
    case 'city':
      return words().called[call.by](call.what);
    case 'nothing':
      return words().called.nothing;
    default:
      return call.what;
  }
};

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
      nameOf: (row: Row): string => inWords(callOf(row.state, around(row))),
      pageOf: (row: Row, page: { url: string; title: string }): ShownPage =>
        shownPage(page, around(row)),
    };
  }, [house]);
};
