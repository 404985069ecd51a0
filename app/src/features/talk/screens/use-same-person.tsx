import type { Row, Thread } from '@porch/contract/entries';
import { type ReactNode, useState } from 'react';
import { offerUndo } from '../../../shell/frame/undo';
import { useDeeds } from '../../deeds/data/deeds';
import { useCalling } from '../../persons/parts/calling';
import { words } from '../words';
import { SamePersonSheet } from './same-person-sheet';

/** Putting two conversations of one person together, and taking them apart; each with its way back. */
export const useSamePerson = (row: Row | undefined) => {
  const { join, part } = useDeeds();
  const { nameOf } = useCalling();
  const [isOpen, setOpen] = useState(false);

  const choose = (other: Row): void => {
    if (!row) return;
    const deedId = join(row, other);
    // The one with which it began comes first: parted again, it stands where it stood.
    const threadIds = [...new Set([other.id, ...other.threads.map(({ id }) => id)])];
    const said = words().undo.joined(nameOf(other));
    offerUndo({ said, deedIds: [deedId], undo: () => part(row, threadIds) });
    setOpen(false);
  };

  const sheet: ReactNode =
    isOpen && row ? (
      <SamePersonSheet row={row} choose={choose} close={() => setOpen(false)} />
    ) : null;

  return {
    sheet,
    choose,
    ask: (): void => setOpen(true),
    part: (thread: Thread): void => {
      if (!row) return;
      const deedId = part(row, [thread.id]);
      // With whom the conversation began keeps it: then it is the others who go, to the first of them.
      const rest = row.threads.map(({ id }) => id).filter((id) => id !== row.id);
      const [other] = thread.id === row.id ? rest.sort() : [thread.id];
      offerUndo({
        said: words().undo.parted,
        deedIds: [deedId],
        undo: () => other && join(row, { ...row, id: other, threads: [] }),
      });
    },
  };
};

export type SamePerson = ReturnType<typeof useSamePerson>;
