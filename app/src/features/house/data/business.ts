import type { Business, BusinessChange, PictureShape } from '@porch/contract/house';
import type { Cut } from '../../../shell/pictures/cutting';
import { sendPicture } from '../../../shell/pictures/send';
import { api } from '../../../shell/session/api';
import { useHouseChange } from '../../../shell/session/house';

/** Changes what the business says of itself. */
export const useChangeBusiness = () =>
  useHouseChange((change: BusinessChange) => api.send<Business>('PUT', '/api/business', change));

/** Sets the business's picture, or takes it away. */
export const useBusinessPicture = (shape: PictureShape) =>
  useHouseChange((cut: Cut | null) => sendPicture('/api/business/picture', cut, { shape }));
