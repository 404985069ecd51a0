import type { ConversationRecord, NewJob } from '../store';

/** What a job that brings a conversation back carries. */
export interface Returning {
  conversationId: string;
}

/** What brings a conversation back that is put by; null where it is not. One a conversation, at its newest time. */
export const returningOf = ({ id, state }: ConversationRecord): NewJob | null =>
  state.putByUntil === null
    ? null
    : {
        key: `return ${id}`,
        kind: 'return',
        load: { conversationId: id } satisfies Returning,
        notBefore: state.putByUntil,
      };
