import { fold, type Happening } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { News } from '../live/hub';
import { type ConversationRecord, type Store, toRow } from '../store';

export interface Recording {
  id: string;
  happening: Happening;
}

/** Appends to a conversation's roll and keeps the cached fold and the line in step. Call inside a transaction; the search is filled by whoever commits. */
export const createRecorder =
  ({ store, clock }: { store: Store; clock: Clock }) =>
  (conversation: ConversationRecord, recordings: readonly Recording[]): News => {
    const entries = recordings.map(({ id, happening }) =>
      store.entries.append(conversation.id, id, clock.now(), happening),
    );
    const next = { ...conversation, state: entries.reduce(fold, conversation.state) };
    store.conversations.update(next);
    return { entries, row: toRow(next), tokenHash: conversation.tokenHash };
  };

export type Record = ReturnType<typeof createRecorder>;
