import { useLive } from './store';
import { useAsTimeGoes } from './use-now';

/** After so long without a word of it they have stopped. */
const TYPING_SHOWN_MS = 6_000;

/** Whether whoever a conversation is with types now. */
export const useIsTyping = (conversationId: string): boolean => {
  const typedAt = useLive(({ typing }) => typing[conversationId] ?? 0);
  return useAsTimeGoes((now) => now - typedAt < TYPING_SHOWN_MS);
};
