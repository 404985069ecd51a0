import type { KeyboardEvent } from 'react';

const steps: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowDown: 1,
  ArrowLeft: -1,
  ArrowUp: -1,
};

/**
 * What makes one of a group of choices behave as people know it: Tab comes to the chosen one, or to the first where none
 * is, and the arrows choose the next and the last (WAI-ARIA Authoring Practices, radio group). `at` and `chosenAt`: their
 * places in the group; `chosenAt` is -1 where none is chosen. `chooseAt` chooses another by its place.
 */
export const byArrows = (
  at: number,
  chosenAt: number,
  count: number,
  chooseAt: (at: number) => void,
) => ({
  tabIndex: (at === Math.max(0, chosenAt) ? 0 : -1) as 0 | -1,
  onKeyDown: (event: KeyboardEvent): void => {
    const step = steps[event.key];
    if (step === undefined || count < 2) return;
    event.preventDefault();
    const next = (at + step + count) % count;
    const group = (event.currentTarget as HTMLElement).closest('[role="radiogroup"]');
    group?.querySelectorAll<HTMLElement>('[role="radio"]')[next]?.focus();
    chooseAt(next);
  },
});
