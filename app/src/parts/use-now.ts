import { useEffect, useState } from 'react';
import { serverNow } from '../data/live-store';

/** The server's time, ticking: every second, or as told. */
export const useNow = (everyMs = 1_000): number => {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const timer = setInterval(() => setNow(serverNow()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
};
