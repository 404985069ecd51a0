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

/** What can be done with rows, each with its way back; and the sheet that putting by needs. */
export const useRowDeeds = (done: () => void = nothing): { deeds: RowDeeds; sheet: ReactNode } => {
  const { wrapUp, putBy, takeBack } = useDeeds();
  useReadyAtTouch(loadSheets);
  const zone = useZone();
  const [putting, setPutting] = useState<readonly Row[] | null>(null);

  const open = useCallback((row: Row) => router.navigate(`/line/${row.id}`), []);
  const deeds = useMemo((): RowDeeds => {
    const wrapUpAll = (rows: readonly Row[]): void => {
      const deedIds = wrapUp(rows);
      const said = words().undo['wrapped-up'](rows.length);
      offerUndo({ said, deedIds, undo: (left) => takeBack(left.flatMap((at) => rows[at] ?? [])) });
      done();
    };
    return {
      open,
      wrapUp: (row) => wrapUpAll([row]),
      putBy: (row) => setPutting([row]),
      takeBack: (row) => takeBack([row]),
      wrapUpAll,
      putByAll: setPutting,
      takeBackAll: (rows) => {
        takeBack(rows);
        done();
      },
    };
  }, [open, wrapUp, takeBack, done]);
  const sheet = putting ? (
    <Suspense fallback={null}>
      <PutBySheet
        close={() => setPutting(null)}
        put={(until) => {
          const deedIds = putBy(putting, until);
          const time = momentInWords(until, serverNow(), zone);
          offerUndo({
            said: words().undo['put-by'](putting.length, time),
            deedIds,
            undo: (left) => takeBack(left.flatMap((at) => putting[at] ?? [])),
          });
          setPutting(null);
          done();
        }}
      />
    </Suspense>
  ) : null;
  return { deeds, sheet };
};
