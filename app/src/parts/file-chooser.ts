import { FILE_LIMITS } from '@porch/core/files';
import { nanoid } from 'nanoid';
import type { HeldFile } from '../data/outbox';

const toHeld = (file: File): HeldFile => ({
  id: nanoid(),
  name: file.name || 'picture.png',
  type: file.type,
  sizeBytes: file.size,
  blob: file,
});

/** Sorts chosen files into those that may be sent and whether one was too large. */
export const sortFiles = (chosen: Iterable<File>): { files: HeldFile[]; isTooLarge: boolean } => {
  const all = [...chosen];
  const fitting = all.filter((file) => file.size <= FILE_LIMITS.largestBytes);
  return { files: fitting.map(toHeld), isTooLarge: fitting.length < all.length };
};

/** Lets somebody choose from their files, or from their phone's camera. */
export const chooseFiles = (take: (files: File[]) => void, only?: { accept: string }): void => {
  const input = document.createElement('input');
  input.type = 'file';
  input.multiple = only === undefined;
  input.accept = only?.accept ?? '';
  input.onchange = () => take([...(input.files ?? [])]);
  input.click();
};
