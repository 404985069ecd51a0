import type { ErrorCode, Refusal } from '@porch/contract/errors';
import type { Crop } from '@porch/contract/house';
import { FILE_LIMITS } from '@porch/core/files';
import sharp, { type Metadata } from 'sharp';

/** Larger than any phone shows; the longest side of what is kept, in pixels. */
const KEPT_LONGEST_SIDE = 2_560;
const THUMBNAIL_LONGEST_SIDE = 640;
/** Faces are shown at most half as large; twice that looks sharp everywhere. */
const FACE_SIDE = 320;

/**
 * How many pixels of each format are opened. A few bytes of AVIF unpack to any number of pixels, and slowly:
 * a camera's picture fits, a bomb does not. sharp calls AVIF "heif".
 */
const pixelsMostOf: Record<string, number> = {
  jpeg: FILE_LIMITS.pixelsMost,
  png: FILE_LIMITS.pixelsMost,
  webp: 25_000_000,
  gif: 16_000_000,
  heif: 13_000_000,
};

export interface EncodedPicture {
  type: 'image/png' | 'image/jpeg';
  width: number;
  height: number;
  whole: Buffer;
  thumbnail: Buffer;
}

/** What is done with the bytes of a picture that came from outside. */
export type Job = { do: 'encode'; bytes: Buffer } | { do: 'cut'; bytes: Buffer; crop: Crop };
export type Done = { picture: EncodedPicture } | { face: Buffer } | { refusal: Refusal };

const refusal = (code: ErrorCode, limit?: number): Done => ({ refusal: { code, limit } });

/** Why a picture is not opened, by its header alone: nothing is unpacked for one that claims to be enormous. */
const tooMuch = ({ width, height, format }: Metadata): Done | null => {
  const isHuge =
    Math.max(width, height) > FILE_LIMITS.longestSidePixels ||
    width * height > FILE_LIMITS.pixelsMost;
  if (isHuge) return refusal('picture-too-large', FILE_LIMITS.longestSidePixels);
  const isSlow = width * height > (pixelsMostOf[format] ?? 0);
  return isSlow ? refusal('picture-takes-too-long') : null;
};

const opened = (bytes: Buffer) =>
  sharp(bytes, { limitInputPixels: FILE_LIMITS.pixelsMost, failOn: 'error' }).autoOrient();

const fit = { fit: 'inside', withoutEnlargement: true } as const;

/** Decodes a picture and encodes it anew: upright, within bounds, and without what a camera wrote into it. */
const encoded = async (bytes: Buffer, hasAlpha: boolean): Promise<EncodedPicture> => {
  const upright = opened(bytes).resize(KEPT_LONGEST_SIDE, KEPT_LONGEST_SIDE, fit);
  const anew = hasAlpha ? upright.png() : upright.jpeg({ quality: 84, mozjpeg: true });
  const { data, info } = await anew.toBuffer({ resolveWithObject: true });
  const thumbnail = await sharp(data)
    .resize(THUMBNAIL_LONGEST_SIDE, THUMBNAIL_LONGEST_SIDE, fit)
    .webp({ quality: 78 })
    .toBuffer();
  const type = hasAlpha ? 'image/png' : 'image/jpeg';
  return { type, width: info.width, height: info.height, whole: data, thumbnail };
};

/** The square that `crop` cuts out of a picture. */
const cut = async (bytes: Buffer, crop: Crop): Promise<Buffer> => {
  const { data, info } = await opened(bytes).toBuffer({ resolveWithObject: true });
  const side = Math.min(crop.side, info.width, info.height);
  const left = Math.min(crop.left, info.width - side);
  const top = Math.min(crop.top, info.height - side);
  return sharp(data)
    .extract({ left, top, width: side, height: side })
    .resize(FACE_SIDE, FACE_SIDE)
    .webp({ quality: 86 })
    .toBuffer();
};

/** Does one job; whatever cannot be opened is refused. May take long: see `createDarkroom`. */
export const develop = async (job: Job): Promise<Done> => {
  try {
    const header = await sharp(job.bytes, { limitInputPixels: false }).metadata();
    const refused = tooMuch(header);
    if (refused) return refused;
    return job.do === 'encode'
      ? { picture: await encoded(job.bytes, header.hasAlpha) }
      : { face: await cut(job.bytes, job.crop) };
  } catch {
    return refusal('picture-unreadable');
  }
};
