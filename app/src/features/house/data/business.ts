import type { Business, BusinessChange, PictureShape } from '@porch/contract/house';
import { useQuery } from '@tanstack/react-query';
import type { Cut } from '../../../shell/pictures/cutting';
import { sendPicture } from '../../../shell/pictures/send';
import { api } from '../../../shell/session/api';
import { useHouseChange } from '../../../shell/session/house';

/** Changes what the business says of itself. */
export const useChangeBusiness = () =>
  useHouseChange((change: BusinessChange) => api.send<Business>('PUT', '/api/business', change));

/** The countries there are, and which one a time zone points to. */
export const useCountries = (zone: string) =>
  useQuery({
    queryKey: ['countries', zone],
    queryFn: () =>
      api.get<{ countries: string[]; guess: string | null }>(
        `/api/countries?zone=${encodeURIComponent(zone)}`,
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Sets the business's picture, or takes it away. */
export const useBusinessPicture = (shape: PictureShape) =>
  useHouseChange((cut: Cut | null) => sendPicture('/api/business/picture', cut, { shape }));
