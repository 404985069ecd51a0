import type { OwnWords, OwnWordsChange } from '@porch/contract/writing';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';

/** What was found in texts; another once a word is right. */
export const lookedThroughKey = 'looked-through';
const ownWordsKey = ['own-words'] as const;

/** Words of the business that no dictionary has. */
export const useOwnWords = () =>
  useQuery({ queryKey: ownWordsKey, queryFn: () => api.get<OwnWords>('/api/own-words') });

export const useSetOwnWords = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (change: OwnWordsChange) => api.send<OwnWords>('PUT', '/api/own-words', change),
    onSuccess: async (words) => {
      client.setQueryData(ownWordsKey, words);
      await client.invalidateQueries({ queryKey: [lookedThroughKey] });
    },
  });
};
