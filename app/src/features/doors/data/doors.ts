import type { Door, DoorChange } from '@porch/contract/doors';
import { api } from '../../../shell/session/api';
import { useHouseChange } from '../../../shell/session/house';

export const useChangeDoor = (doorId: string) =>
  useHouseChange((change: DoorChange) => api.send<Door>('PUT', `/api/doors/${doorId}`, change));

export const useNewDoor = () =>
  useHouseChange((door: { name: string; language: string }) =>
    api.send<Door>('POST', '/api/doors', door),
  );
