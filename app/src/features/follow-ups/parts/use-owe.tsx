import type { Row } from '@porch/contract/entries';
import { type ReactNode, Suspense, useState } from 'react';
import { offerUndo } from '../../../shell/frame/undo';
import { OweSheet } from '../../deeds/parts/late-sheets';
import { useOwing } from '../data/follow-ups';
import { words } from '../words';

/** Writing down that something is owed to somebody, with its way back. */
export const useOwe = (
  row: Row | undefined,
  name: string,
): { ask: () => void; sheet: ReactNode } => {
  const { owe, forget } = useOwing();
  const [isAsking, setAsking] = useState(false);
  const sheet =
    isAsking && row ? (
      <Suspense fallback={null}>
        <OweSheet
          title={words().sheet(name)}
          known={null}
          close={() => setAsking(false)}
          save={(owed) => {
            const deedId = owe(row, owed);
            setAsking(false);
            offerUndo({ said: words().saved, deedIds: [deedId], undo: () => forget(row, deedId) });
          }}
        />
      </Suspense>
    ) : null;
  return { ask: () => setAsking(true), sheet };
};
