import type { HeldFile } from '@porch/client/files';
import { keep, kept } from '@porch/client/keeping';
import type { ShelfSaid } from '@porch/core/conversation';
import { createSmallStore } from '../session/small-store';

const held = createSmallStore<readonly HeldFile[]>('porch-drafts');
const shelfKey = (conversationId: string): string => `porch:draft-shelf:${conversationId}`;
const textKey = (conversationId: string): string => `porch:draft:${conversationId}`;

/** What is half written in a conversation stays on this device: over a reload, and over a new version. */
export const drafts = {
  text: (conversationId: string): string => kept(textKey(conversationId)) ?? '',
  keepText: (conversationId: string, text: string): void => keep(textKey(conversationId), text),
  /** What is put in from the shelf. */
  shelf: (conversationId: string): ShelfSaid[] => {
    try {
      const all: unknown = JSON.parse(kept(shelfKey(conversationId)) ?? '[]');
      return Array.isArray(all) ? all : [];
    } catch {
      return [];
    }
  },
  keepShelf: (conversationId: string, things: readonly ShelfSaid[]): void =>
    keep(shelfKey(conversationId), things.length > 0 ? JSON.stringify(things) : ''),
  files: async (conversationId: string): Promise<HeldFile[]> => [
    ...((await held.get(conversationId)) ?? []),
  ],
  keepFiles: (conversationId: string, files: readonly HeldFile[]): Promise<void> =>
    files.length > 0 ? held.set(conversationId, files) : held.drop(conversationId),
  /** Puts something behind what is half written already. */
  add: async (
    conversationId: string,
    { text, files }: { text: string; files: readonly HeldFile[] },
  ): Promise<void> => {
    const before = drafts.text(conversationId).trimEnd();
    drafts.keepText(conversationId, [before, text].filter(Boolean).join('\n'));
    await held.set(conversationId, [...(await drafts.files(conversationId)), ...files]);
  },
  /** Nobody is signed in any more: no file of theirs stays. */
  forgetFiles: (): Promise<void> => held.clear(),
};
