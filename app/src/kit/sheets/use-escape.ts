import { useLayoutEffect, useRef } from 'react';

type Close = { current: () => void };

const open: Close[] = [];

const press = (event: KeyboardEvent): void => {
  if (event.key !== 'Escape' || event.isComposing) return;
  event.preventDefault();
  event.stopPropagation();
  open[open.length - 1]?.current();
};

/**
 * Closes what lies on top of the screen when Esc goes down, and only the topmost. It listens from the very
 * moment in which that is shown: a quick Esc is not lost, and does not reach the screen below.
 */
export const useEscape = (close: () => void): void => {
  const latest = useRef(close);
  latest.current = close;
  useLayoutEffect(() => {
    if (open.length === 0) window.addEventListener('keydown', press, true);
    open.push(latest);
    return () => {
      open.splice(open.indexOf(latest), 1);
      if (open.length === 0) window.removeEventListener('keydown', press, true);
    };
  }, []);
};
