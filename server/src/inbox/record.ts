import { fold, type Happening, searchableText } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { News } from '../live/hub';
import { type ConversationRecord, type Store, toRow } from '../store';

export interface Recording {
  id: string;
  happening: Happening;
}

/** Appends to a conversation's roll and keeps the cached fold, the line and the search in step. Call inside a transaction. */
export const createRecorder =
  ({ store, clock }: { store: Store; clock: Clock }) =>
  (conversation: ConversationRecord, recordings: readonly Recording[]): News => {
    const entries = recordings.map(({ id, happening }) =>
      store.entries.append(conversation.id, id, clock.now(), happening),
    );
    const next = { ...conversation, state: entries.reduce(fold, conversation.state) };
    store.conversations.update(next);
    for (const entry of entries) store.search.add(entry.seq, searchableText(entry));
    return { entries, row: toRow(next), tokenHash: conversation.tokenHash };
  };

export type Record = ReturnType<typeof createRecorder>;
