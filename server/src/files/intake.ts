import { FILE_LARGEST_BYTES, PICTURE_LONGEST_SIDE } from '@porch/contract/entries';
import { FILE_LIMITS } from '@porch/core/files';
import { cleanLine } from '@porch/core/text';
import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
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

const NAME_LONGEST = 120;
/** Larger than any phone shows; the longest side of what is kept, in pixels. */
const KEPT_LONGEST_SIDE = 2_560;
const THUMBNAIL_LONGEST_SIDE = 640;
const DECODING_LONGEST_SECONDS = 20;

export const pictureTypes = new Set([
  'image/jpeg',
  'image/png',
  'image/webp',
  'image/gif',
  'image/avif',
]);
const pictureNames = /\.(jpe?g|png|webp|gif|avif)$/i;

const cleanName = (typed: string): string => {
  const name = cleanLine(typed.replace(/[/\\]/g, ' ')).slice(-NAME_LONGEST);
  return name || 'file';
};

const withEnding = (name: string, ending: string): string =>
  `${name.replace(/\.[^.]{1,5}$/, '')}.${ending}`;

export const openPicture = (bytes: Buffer) =>
  sharp(bytes, { limitInputPixels: FILE_LIMITS.pixelsMost, failOn: 'error' }).timeout({
    seconds: DECODING_LONGEST_SECONDS,
  });

export const refuseIfHuge = async (bytes: Buffer): Promise<boolean> => {
  // The header alone tells the size: nothing is unpacked for a picture that claims to be enormous.
  const { width, height, hasAlpha } = await sharp(bytes, { limitInputPixels: false }).metadata();
  const isHuge =
    Math.max(width, height) > PICTURE_LONGEST_SIDE || width * height > FILE_LIMITS.pixelsMost;
  if (isHuge) throw new Refused('picture-too-large', { limit: PICTURE_LONGEST_SIDE });
  return hasAlpha;
};

/** Decodes a picture and encodes it anew: upright, within bounds, and without what a camera wrote into it. */
const reEncode = async (name: string, bytes: Buffer): Promise<TakenIn> => {
  const hasAlpha = await refuseIfHuge(bytes);
  const fit = { fit: 'inside', withoutEnlargement: true } as const;
  const upright = openPicture(bytes)
    .autoOrient()
    .resize({ width: KEPT_LONGEST_SIDE, height: KEPT_LONGEST_SIDE, ...fit });
  const encoded = hasAlpha ? upright.png() : upright.jpeg({ quality: 84, mozjpeg: true });
  const { data, info } = await encoded.toBuffer({ resolveWithObject: true });
  const thumbnail = await sharp(data)
    .resize({ width: THUMBNAIL_LONGEST_SIDE, height: THUMBNAIL_LONGEST_SIDE, ...fit })
    .webp({ quality: 78 })
    .toBuffer();
  return {
    name: withEnding(name, hasAlpha ? 'png' : 'jpg'),
    type: hasAlpha ? 'image/png' : 'image/jpeg',
    width: info.width,
    height: info.height,
    whole: data,
    thumbnail,
  };
};

/**
 * Looks at what a file really is. Pictures are encoded anew; anything else is kept as it came, to be
 * downloaded only. Refuses what is empty, too large, or called a picture without being one.
 */
export const takeIn = async (typedName: string, bytes: Buffer): Promise<TakenIn> => {
  if (bytes.length === 0) throw new Refused('file-empty');
  if (bytes.length > FILE_LARGEST_BYTES)
    throw new Refused('too-large', { limit: FILE_LARGEST_BYTES });
  const name = cleanName(typedName);
  const sniffed = await fileTypeFromBuffer(bytes);
  if (sniffed && pictureTypes.has(sniffed.mime)) {
    try {
      return await reEncode(name, bytes);
    } catch (error) {
      if (error instanceof Refused) throw error;
      throw new Refused('picture-unreadable');
    }
  }
  if (pictureNames.test(name)) throw new Refused('picture-unreadable');
  const type = sniffed?.mime ?? 'application/octet-stream';
  return { name, type, width: null, height: null, whole: bytes, thumbnail: null };
};
