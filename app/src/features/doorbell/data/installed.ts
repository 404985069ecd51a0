import type { House } from '@porch/contract/house';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api } from '../../../shell/session/api';
import { houseKey } from '../../../shell/session/house';
import { useInstalling } from '../../../shell/session/installing';

/** Tells the house, once, that the app runs from a home screen: the checklist waits for it. Mount once. */
export const useInstalledNote = (house: House | undefined): void => {
  const client = useQueryClient();
  const isInstalled = useInstalling((installing) => installing.isInstalled);
  const isNews = isInstalled && house?.checklist?.homeScreen === false;
  useEffect(() => {
    if (!isNews) return;
    api.send('POST', '/api/ticks', { tick: 'home-screen' }).then(
      () => client.invalidateQueries({ queryKey: houseKey }),
      () => undefined,
    );
  }, [isNews, client]);
};
