import { createHash } from 'node:crypto';
import { FILE_LARGEST_BYTES } from '@porch/contract/entries';
import type { Crop } from '@porch/contract/house';
import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import type { Clock } from '../clock';
import type { Darkroom } from '../darkroom/darkroom';
import { pictureTypes } from '../files/intake';
import { Refused } from '../refused';
import type { Store } from '../store';

const UNUSED_KEPT_MS = 24 * 3_600_000;
const SAMPLE_SIDE = 64;

/** The pixels of a kept picture as RGB bytes, few enough to count. */
export const pixelsOf = (bytes: Buffer): Promise<Buffer> =>
  sharp(bytes)
    .flatten({ background: '#ffffff' })
    .resize(SAMPLE_SIDE, SAMPLE_SIDE, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer();

/** A drawing as a PNG of a width in pixels. */
export const drawn = (svg: string, width: number): Promise<Buffer> =>
  sharp(Buffer.from(svg), { density: 600 }).resize(width).png().toBuffer();

/** Faces and the business's picture: a square out of what was sent, encoded anew. */
export const createPictures = ({
  store,
  clock,
  darkroom,
}: {
  store: Store;
  clock: Clock;
  darkroom: Darkroom;
}) => ({
  /** Keeps the square that `crop` cuts out; gives the id under which it can be had. */
  take: async (bytes: Buffer, crop: Crop, memberId: string): Promise<string> => {
    if (!bytes || bytes.length === 0) throw new Refused('file-empty');
    if (bytes.length > FILE_LARGEST_BYTES) {
      throw new Refused('too-large', { limit: FILE_LARGEST_BYTES });
    }
    const sniffed = await fileTypeFromBuffer(bytes);
    if (!sniffed || !pictureTypes.has(sniffed.mime)) throw new Refused('picture-unreadable');
    const kept = await darkroom.cut(bytes, crop, { lane: 'team', sender: memberId });
    const id = createHash('sha256').update(kept).digest('hex').slice(0, 32);
    store.pictures.add(id, kept, clock.now());
    return id;
  },
  tidy: (): void => store.pictures.dropUnusedBefore(clock.now() - UNUSED_KEPT_MS),
});

export type Pictures = ReturnType<typeof createPictures>;
