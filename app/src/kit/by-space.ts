import type { KeyboardEvent } from 'react';

/** What is pressed by Enter everywhere is pressed by the space bar too, as people know it of switches and choices. */
export const bySpace = (press: () => void) => ({
  onKeyDownCapture: (event: KeyboardEvent): void => {
    if (event.key !== ' ') return;
    // The page would go down by a screen.
    event.preventDefault();
    press();
  },
});
