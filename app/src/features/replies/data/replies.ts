import type { QuickReplies, QuickReply, QuickReplyChange, TakenIn } from '@porch/contract/replies';
import { indexReplies } from '@porch/core/replies';
import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../../../shell/session/api';
import {
  type KeptReplies,
  keptReplies,
  quickRepliesKey,
} from '../../../shell/session/quick-replies';
import type { TableForm } from '../../../shell/tables/table-buttons';

const load = async (client: QueryClient): Promise<KeptReplies> => {
  const before = client.getQueryData<KeptReplies>(quickRepliesKey) ?? (await keptReplies.read());
  try {
    const known = encodeURIComponent(before?.mark ?? '');
    const { mark, replies } = await api.get<QuickReplies>(`/api/quick-replies?known=${known}`);
    if (replies === null && before) return before;
    const now = { mark, replies: replies ?? [] };
    void keptReplies.write(now);
    return now;
  } catch (error) {
    if (!before) throw error;
    return before;
  }
};

/** Stored answers: the team's, and one's own. */
export const useQuickReplies = () => {
  const client = useQueryClient();
  return useQuery({
    queryKey: quickRepliesKey,
    queryFn: () => load(client),
    select: ({ replies }) => replies,
    staleTime: Number.POSITIVE_INFINITY,
  });
};

const none: QuickReply[] = [];

/** The same, made ready to be found in. */
export const useRepliesIndex = () => {
  const replies = useQuickReplies().data ?? none;
  return useMemo(
    () => indexReplies(replies.map((reply) => ({ ...reply, isOwn: reply.memberId !== null }))),
    [replies],
  );
};

const useChange = <Typed, Answer>(send: (typed: Typed) => Promise<Answer>) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    // Also what was refused is another by now: somebody has changed or deleted it.
    onSettled: () => client.invalidateQueries({ queryKey: quickRepliesKey }),
  });
};

export const usePutReply = () =>
  useChange(({ id, ...change }: QuickReplyChange & { id: string }) =>
    api.send<QuickReply>('PUT', `/api/quick-replies/${id}`, change),
  );

export const useDropReply = () => useChange((id: string) => api.drop(`/api/quick-replies/${id}`));

/** Brings a picture to the house, to go with a quick reply. */
/** Where they are written out. */
export const tableAddress = (form: TableForm): string => `/api/quick-replies/table?as=${form}`;

export const useTakeTable = () =>
  useChange(({ form, file }: { form: TableForm; file: File }) =>
    api.post<TakenIn>(tableAddress(form), file),
  );
