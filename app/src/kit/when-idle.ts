import { useEffect } from 'react';

/** Browsers that cannot say when nothing is to be done: a moment later. */
const LATER_MS = 200;

/** Whoever pays for each byte asks for no more than they need (Save-Data, client hints). */
const savesData = (): boolean =>
  (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

/** Does something once from when it is time on, as soon as the page has nothing else to do; what fails then is done when it is wanted. */
export const useWhenIdle = (isTime: boolean, work: (() => Promise<unknown>) | undefined): void => {
  useEffect(() => {
    if (!isTime || !work || savesData()) return;
    const go = (): void => void work().catch(() => undefined);
    if (typeof requestIdleCallback === 'undefined') {
      const timer = setTimeout(go, LATER_MS);
      return () => clearTimeout(timer);
    }
    const handle = requestIdleCallback(go);
    return () => cancelIdleCallback(handle);
  }, [isTime, work]);
};
