import { keep, kept } from '@porch/client/keeping';
import type { Dressed, Trial } from '@porch/contract/dress';
import type { ChosenColours } from '@porch/core/colours';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { useLive } from '../../../shell/live/store';
import { api } from '../../../shell/session/api';
import { createWorkbench, type Work, type Workbench } from './workbench';

const workbenchOf = (doorId: string): Workbench => {
  const at = (what: string): string => `/api/doors/${doorId}/${what}`;
  const key = `porch:dress:${doorId}`;
  return createWorkbench(
    {
      load: () => api.get<Dressed>(at('dress')),
      save: (revision, dress) => api.send<Dressed>('PUT', at('draft'), { revision, dress }),
      publish: (revision) => api.send<Dressed>('POST', at('publish'), { revision }),
      undo: (revision) => api.send<Dressed>('POST', at('undo'), { revision }),
    },
    { read: () => kept(key), write: (text) => keep(key, text) },
  );
};

/** A door's draft to work on, while its dressing room is open. */
export const useDressing = (doorId: string): { bench: Workbench; work: Work } => {
  const [bench] = useState(() => workbenchOf(doorId));
  const work = useStore(bench.store);
  useEffect(() => {
    void bench.open();
    return bench.close;
  }, [bench]);
  const isConnected = useLive((live) => live.isConnected);
  const isMissing = work.dress === null && work.error !== null;
  useEffect(() => {
    if (isConnected && isMissing) void bench.open();
  }, [bench, isConnected, isMissing]);
  return { bench, work };
};

/** A way to see the draft, or one greeting of it, on the owner's own website. */
export const useTrial = (doorId: string) =>
  useMutation({
    mutationFn: (greeting: string | undefined) =>
      api.send<Trial>('POST', `/api/doors/${doorId}/trial`, { greeting }),
  });

/** Colours that fit the business's picture. */
export const useColoursOfPicture = () =>
  useMutation({ mutationFn: () => api.get<ChosenColours>('/api/business/colours') });
