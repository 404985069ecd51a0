import type { TeamLamp } from '@porch/contract/lamp';
import type { Out } from '@porch/contract/people';
import type { LampSetting } from '@porch/core/lamp';
import { useMutation } from '@tanstack/react-query';
import { live } from '../../../shell/live/store';
import { api } from '../../../shell/session/api';
import { useHouseChange } from '../../../shell/session/house';

/** What the light will show once the house has taken a setting, as far as it can be known here. */
export const lampAhead = (lamp: TeamLamp, setting: LampSetting): TeamLamp => {
  if (setting.state !== 'by-hours')
    return { ...lamp, ...setting, setting, why: 'hand', ask: null, ended: null };
  return {
    ...lamp,
    setting,
    why: 'hours',
    ask: null,
    ended: null,
    state: lamp.isOpen ? 'lit' : 'dark',
    until: lamp.isOpen ? lamp.shutsNext : lamp.opensNext,
  };
};

/** Sets the porch light; shown at once, and taken back if the server does not take it. */
export const useSetLamp = () =>
  useMutation({
    mutationFn: (setting: LampSetting) => api.send<TeamLamp>('PUT', '/api/lamp', setting),
    onMutate: (setting) => {
      const before = live.now().lamp;
      if (before) live.set({ lamp: lampAhead(before, setting) });
      return before;
    },
    onSuccess: (lamp) => live.set({ lamp }),
    onError: (_error, _setting, before) => live.set({ lamp: before ?? null }),
  });

/** Leaves the light as it is, though somebody waits. */
export const useAnswerAsk = () =>
  useMutation({
    mutationFn: () => api.drop('/api/lamp/ask'),
    onMutate: () => {
      const { lamp } = live.now();
      if (lamp) live.set({ lamp: { ...lamp, ask: null } });
    },
  });

/** Says whether somebody is in; null: they are. */
export const useSetOut = () =>
  useHouseChange(async ({ id, out }: { id: string; out: Out | null }) => {
    const lamp = await api.send<TeamLamp>('PUT', `/api/members/${id}/out`, { out });
    live.set({ lamp });
  });
