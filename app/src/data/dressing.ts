import type { Dressed, Trial } from '@porch/contract/dress';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { api } from './api';
import { keep, kept } from './kept';
import { useLive } from './live-store';
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
  const work = useSyncExternalStore(bench.watch, bench.now);
  useEffect(() => {
    void bench.open();
    return bench.close;
  }, [bench]);
  const { isConnected } = useLive();
  const isMissing = work.dress === null && work.error !== null;
  useEffect(() => {
    if (isConnected && isMissing) void bench.open();
  }, [bench, isConnected, isMissing]);
  return { bench, work };
};

/** A way to see the draft on the owner's own website. */
export const useTrial = (doorId: string) =>
  useMutation({ mutationFn: () => api.send<Trial>('POST', `/api/doors/${doorId}/trial`, {}) });
