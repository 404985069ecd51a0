import type { Door, DoorChange } from '@porch/contract/doors';
import { api } from '../../../shell/session/api';
import { useHouseChange } from '../../../shell/session/house';

/** Changes what an owner decides about a door; refused where somebody else may not. */
export const useChangeDoor = (doorId: string) =>
  useHouseChange((change: DoorChange) => api.send<Door>('PUT', `/api/doors/${doorId}`, change));

/** Adds a website door; gives it as it is now. */
export const useNewDoor = () =>
  useHouseChange((door: { name: string; language: string }) =>
    api.send<Door>('POST', '/api/doors', door),
  );
