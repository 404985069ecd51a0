import type { Row } from '@porch/contract/entries';
import type { Group } from '@porch/core/conversation';
import { useCallback, useMemo, useState } from 'react';

/** Where each chosen conversation stood when it was chosen; null: nothing is being chosen. */
type Chosen = ReadonlyMap<string, Group> | null;

/**
 * Rows of the line that something is to be done with at once. Whoever writes meanwhile stands elsewhere by then, and is
 * no longer among them: nobody who waits is wrapped up by a tap that was meant for what was answered.
 */
export const useSelected = (rows: readonly Row[]) => {
  const [chosen, setChosen] = useState<Chosen>(null);
  const toggle = useCallback((row: Row): void => {
    setChosen((before) => {
      const now = new Map(before);
      if (now.get(row.id) === row.group) now.delete(row.id);
      else now.set(row.id, row.group);
      return now.size > 0 ? now : null;
    });
  }, []);
  const toggleAll = useCallback((which: readonly Row[]): void => {
    setChosen((before) => {
      const now = new Map(before);
      const areAll = which.every(({ id, group }) => now.get(id) === group);
      for (const { id, group } of which) {
        if (areAll) now.delete(id);
        else now.set(id, group);
      }
      return now.size > 0 ? now : null;
    });
  }, []);
  const end = useCallback(() => setChosen(null), []);
  const selected = useMemo(
    () => rows.filter(({ id, group }) => chosen?.get(id) === group),
    [rows, chosen],
  );
  /** What can be done differs: those that wait or were answered, and those that were put out of the line. */
  const inLine = selected.filter(({ state }) => state.aside === null);
  const aside = selected.filter(({ state }) => state.aside !== null);
  return {
    isSelecting: chosen !== null,
    isSelected: ({ id, group }: Row): boolean => chosen?.get(id) === group,
    selected,
    inLine,
    aside,
    toggle,
    toggleAll,
    end,
  };
};
