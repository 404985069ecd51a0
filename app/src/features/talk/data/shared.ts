import { useQuery, useQueryClient } from '@tanstack/react-query';
import { drafts } from '../../../shell/offline/drafts';
import { dropShared, type Shared, sharedNow } from '../../../shell/session/shared';

const sharedKey = ['shared'] as const;

/** What another app handed over; null: nothing. */
export const useShared = () =>
  useQuery({ queryKey: sharedKey, queryFn: sharedNow, staleTime: 0, gcTime: 0 });

/** Puts what was shared behind what is half written in a conversation, or leaves it. */
export const useUseShared = () => {
  const client = useQueryClient();
  return async (shared: Shared, conversationId: string | null): Promise<void> => {
    if (conversationId !== null) await drafts.add(conversationId, shared);
    await dropShared();
    client.setQueryData<Shared | null>(sharedKey, null);
  };
};
