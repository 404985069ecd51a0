import { FILE_LARGEST_BYTES } from '@porch/contract/entries';
import type { ErrorCode } from '@porch/contract/errors';
import { cleanFileName } from '@porch/core/files';
import { fileTypeFromBuffer } from 'file-type';
import type { Darkroom, Sending } from '../darkroom/darkroom';
import { Refused } from '../refused';

/** What is kept of a file that came in. */
export interface TakenIn {
  name: string;
  type: string;
  width: number | null;
  height: number | null;
  whole: Buffer;
  thumbnail: Buffer | null;
}

export const pictureTypes = new Set([
  'image/jpeg',
  'image/png',
  'image/webp',
  'image/gif',
  'image/avif',
]);
const pictureNames = /\.(jpe?g|png|webp|gif|avif)$/i;

const withEnding = (name: string, ending: string): string =>
  `${name.replace(/\.[^.]{1,5}$/, '')}.${ending}`;

/** With which codes a picture is refused. */
export const pictureRefusals: readonly ErrorCode[] = [
  'file-empty',
  'picture-unreadable',
  'picture-too-large',
  'picture-takes-too-long',
  'too-many',
];

/**
 * Looks at what a file really is. Pictures are encoded anew; anything else is kept as it came, to be
 * downloaded only. Refuses what is empty, too large, or called a picture without being one.
 */
export const takeIn = async (
  darkroom: Pick<Darkroom, 'encode'>,
  typedName: string,
  bytes: Buffer,
  from: Sending,
): Promise<TakenIn> => {
  if (bytes.length === 0) throw new Refused('file-empty');
  if (bytes.length > FILE_LARGEST_BYTES)
    throw new Refused('too-large', { limit: FILE_LARGEST_BYTES });
  const name = cleanFileName(typedName);
  const sniffed = await fileTypeFromBuffer(bytes);
  if (sniffed && pictureTypes.has(sniffed.mime)) {
    const picture = await darkroom.encode(bytes, from);
    return { name: withEnding(name, picture.type === 'image/png' ? 'png' : 'jpg'), ...picture };
  }
  if (pictureNames.test(name)) throw new Refused('picture-unreadable');
  const type = sniffed?.mime ?? 'application/octet-stream';
  return { name, type, width: null, height: null, whole: bytes, thumbnail: null };
};
