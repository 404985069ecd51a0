import { useEffect } from 'react';

/**
 * Fetches code that is not part of the first load at the first touch or key: whoever uses the app has it before they
 * ask for it, also when the signal goes meanwhile.
 */
export const useReadyAtTouch = (load: () => Promise<unknown>): void => {
  useEffect(() => {
    if (typeof window === 'undefined' || !window.addEventListener) return;
    const stop = (): void => {
      window.removeEventListener('pointerdown', fetchIt, true);
      window.removeEventListener('keydown', fetchIt, true);
    };
    const fetchIt = (): void => {
      stop();
      // What did not come is asked for again where it is wanted.
      load().catch(() => undefined);
    };
    window.addEventListener('pointerdown', fetchIt, true);
    window.addEventListener('keydown', fetchIt, true);
    return stop;
  }, [load]);
};
