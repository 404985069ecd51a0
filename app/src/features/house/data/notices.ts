import { api } from '../../../shell/session/api';
import { useHouseChange } from '../../../shell/session/house';

/** The owner has read what was found; it is not shown again. */
export const useFindingRead = () =>
  useHouseChange((kind: string) => api.drop(`/api/findings/${kind}`));

/** Whoever is signed in has seen that there were wrong tries at their account. */
export const useWarningSeen = () =>
  useHouseChange((_nothing: undefined) => api.drop('/api/me/warning'));
