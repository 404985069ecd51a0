import type { QuickReply } from '@porch/contract/replies';
import { createSmallStore } from './small-store';

/** Stored answers; told of together with the house. */
export const quickRepliesKey = ['quick-replies'] as const;

export interface KeptReplies {
  /** By which the house knows whether they have changed since. */
  mark: string;
  replies: QuickReply[];
}

const shelf = createSmallStore<KeptReplies>('porch-quick-replies');
const KEY = 'all';

/** They stay on the device: whoever has no signal takes one all the same. */
export const keptReplies = {
  read: (): Promise<KeptReplies | null> => shelf.get(KEY),
  write: (kept: KeptReplies): Promise<void> => shelf.set(KEY, kept),
  /** Nobody is signed in any more. */
  forget: (): Promise<void> => shelf.clear(),
};
