import type { HeldFile } from '@porch/client/files';
import { keep, kept } from '@porch/client/keeping';
import { createSmallStore } from '../session/small-store';

const held = createSmallStore<readonly HeldFile[]>('porch-drafts');
const textKey = (conversationId: string): string => `porch:draft:${conversationId}`;

/** What is half written in a conversation stays on this device: over a reload, and over a new version. */
export const drafts = {
  text: (conversationId: string): string => kept(textKey(conversationId)) ?? '',
  keepText: (conversationId: string, text: string): void => keep(textKey(conversationId), text),
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
