import { useEffect, useState } from 'react';

/** Whether somebody really looks at this screen now. */
export const useIsLooking = (): boolean => {
  const [isLooking, setLooking] = useState(() => document.visibilityState === 'visible');
  useEffect(() => {
    const look = (): void => setLooking(document.visibilityState === 'visible');
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, []);
  return isLooking;
};
