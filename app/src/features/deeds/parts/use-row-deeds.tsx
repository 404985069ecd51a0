import type { Row } from '@porch/contract/entries';
import { router } from 'expo-router';
import { type ReactNode, Suspense, useCallback, useMemo, useState } from 'react';
import { momentInWords } from '../../../kit/times';
import { offerUndo } from '../../../shell/frame/undo';
import { serverNow } from '../../../shell/live/store';
import { useReadyAtTouch } from '../../../shell/offline/ready';
import { useZone } from '../../../shell/session/house';
import { useDeeds } from '../data/deeds';
import { words } from '../words';
import { loadSheets, PutBySheet } from './late-sheets';
import type { RowDeeds } from './row-deeds';

const nothing = (): void => {};

/** What can be done with a row, each with its way back; and the sheet that putting by needs. */
export const useRowDeeds = (done: () => void = nothing): { deeds: RowDeeds; sheet: ReactNode } => {
  const { wrapUp, putBy, takeBack } = useDeeds();
  useReadyAtTouch(loadSheets);
  const zone = useZone();
  const [putting, setPutting] = useState<Row | null>(null);

  const open = useCallback((row: Row) => router.navigate(`/line/${row.id}`), []);
  const deeds = useMemo(
    () => ({
      open,
      wrapUp: (row: Row): void => {
        const deedId = wrapUp(row);
        offerUndo({ said: words().undo['wrapped-up'], deedId, undo: () => takeBack(row) });
        done();
      },
      putBy: setPutting,
      takeBack,
    }),
    [open, wrapUp, takeBack, done],
  );
  const sheet = putting ? (
    <Suspense fallback={null}>
      <PutBySheet
        close={() => setPutting(null)}
        put={(until) => {
          const deedId = putBy(putting, until);
          const said = words().undo['put-by'](momentInWords(until, serverNow(), zone));
          offerUndo({ said, deedId, undo: () => takeBack(putting) });
          setPutting(null);
          done();
        }}
      />
    </Suspense>
  ) : null;
  return { deeds, sheet };
};
