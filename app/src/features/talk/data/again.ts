import type { Entry } from '@porch/core/conversation';
import { useMutation } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

/** Lets an answer be tried once more that a network did not take. What comes of it is told as news. */
export const useSendAgain = ({ conversationId, id }: Entry) =>
  useMutation({
    mutationFn: () =>
      api.send<null>('POST', `/api/conversations/${conversationId}/entries/${id}/again`, {}),
  });
