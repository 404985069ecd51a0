import type { LampSetting } from '@porch/core/lamp';
import { useMutation } from '@tanstack/react-query';
import { live } from '../../../shell/live/store';
import { api } from '../../../shell/session/api';

/** Sets the porch light; shown at once, and taken back if the server does not take it. */
export const useSetLamp = () =>
  useMutation({
    mutationFn: (lamp: LampSetting) => api.send<LampSetting>('PUT', '/api/lamp', lamp),
    onMutate: (lamp) => {
      const before = live.now().lamp;
      live.set({ lamp });
      return before;
    },
    onError: (_error, _lamp, before) => live.set({ lamp: before ?? null }),
  });
