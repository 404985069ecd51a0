import type { Business, Crop, Member, PictureShape } from '@porch/contract/team';
import type { ChosenColours } from '@porch/core/colours';
import { useMutation } from '@tanstack/react-query';
import { api } from './api';
import { useHouseChange } from './house';

/** A picture and the square of it that is meant. */
export interface Cut {
  picture: Blob;
  crop: Crop;
}

const asQuery = ({ left, top, side }: Crop): string => `left=${left}&top=${top}&side=${side}`;

export const pictureUrl = (id: string | null): string | null => id && `/pictures/${id}`;

export const useBusinessPicture = (shape: PictureShape) =>
  useHouseChange(
    (cut: Cut | null): Promise<unknown> =>
      cut
        ? api.put<Business>(
            `/api/business/picture?${asQuery(cut.crop)}&shape=${shape}`,
            cut.picture,
          )
        : api.drop('/api/business/picture'),
  );

export const useFace = () =>
  useHouseChange(
    (cut: Cut | null): Promise<unknown> =>
      cut
        ? api.put<Member>(`/api/me/picture?${asQuery(cut.crop)}`, cut.picture)
        : api.drop('/api/me/picture'),
  );

export const useColoursOfPicture = () =>
  useMutation({ mutationFn: () => api.get<ChosenColours>('/api/business/colours') });
