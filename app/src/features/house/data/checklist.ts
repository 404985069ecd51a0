import { useEffect } from 'react';
import { api } from '../../../shell/session/api';
import { useHouse, useHouseChange } from '../../../shell/session/house';

const LOOK_EVERY_MS = 60_000;

/** The house, looked at anew every minute: for the checklist, which says when it last looked. */
export const useWatchedHouse = () => {
  const { dataUpdatedAt, refetch } = useHouse();
  useEffect(() => {
    const timer = setInterval(() => void refetch(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [refetch]);
  return { dataUpdatedAt, refetch };
};

/** Ticks what only a person can know to be done. */
export const useTick = () =>
  useHouseChange((tick: 'dark-texts' | 'team') => api.send('POST', '/api/ticks', { tick }));
