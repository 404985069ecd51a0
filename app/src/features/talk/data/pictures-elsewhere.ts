import type { PicturesElsewhere } from '@porch/contract/line';
import type { Entry } from '@porch/core/conversation';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

/** Pictures that a mail shows and does not carry; nothing is asked for before `isAskedFor`. */
export const usePicturesElsewhere = ({ conversationId, id }: Entry, isAskedFor: boolean) =>
  useQuery({
    queryKey: ['pictures-elsewhere', conversationId, id],
    queryFn: (): Promise<PicturesElsewhere> =>
      api.send('POST', `/api/conversations/${conversationId}/entries/${id}/pictures`, {}),
    enabled: isAskedFor,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
