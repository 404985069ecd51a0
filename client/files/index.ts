import { FILE_LIMITS } from '@porch/core/files';
import { nanoid } from 'nanoid';

/** A file that waits on this device. */
export interface HeldFile {
  id: string;
  name: string;
  type: string;
  sizeBytes: number;
  blob: Blob;
}

const toHeld = (file: File): HeldFile => ({
  id: nanoid(),
  // What is pasted from a screen has no name.
  name: file.name || 'picture.png',
  type: file.type,
  sizeBytes: file.size,
  blob: file,
});

/** What is held once more files were chosen: at most as many as one message takes, none of them too large. */
export const withChosen = (
  held: readonly HeldFile[],
  chosen: Iterable<File>,
): { files: HeldFile[]; isTooLarge: boolean } => {
  const all = [...chosen];
  const fitting = all.filter((file) => file.size <= FILE_LIMITS.largestBytes);
  return {
    files: [...held, ...fitting.map(toHeld)].slice(0, FILE_LIMITS.most),
    isTooLarge: fitting.length < all.length,
  };
};
