import { markOf } from '@porch/core/calling';
import { day } from '@porch/core/theme';
import { fileAddress } from '../shell/pictures/addresses';

const SIDE = 96;
/** A mark is drawn on a grid of 24 by 24; a margin of an eighth stays around it. */
const GRID = 24;
const MARGIN = SIDE / 8;
const PICTURE_LARGEST_BYTES = 300_000;
const PICTURE_LONGEST_MS = 3_000;

const toDataUrl = async (blob: Blob): Promise<string> => {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return `data:${blob.type};base64,${btoa(text)}`;
};

/** The small drawn mark by which somebody is known in the line, as a picture. */
export const drawMark = async (talk: string): Promise<string | undefined> => {
  if (typeof OffscreenCanvas === 'undefined') return undefined;
  const canvas = new OffscreenCanvas(SIDE, SIDE);
  const pen = canvas.getContext('2d');
  if (!pen) return undefined;
  pen.fillStyle = day.linen;
  pen.fillRect(0, 0, SIDE, SIDE);
  pen.translate(MARGIN, MARGIN);
  pen.scale((SIDE - 2 * MARGIN) / GRID, (SIDE - 2 * MARGIN) / GRID);
  pen.strokeStyle = day.ink;
  pen.lineWidth = 2;
  pen.lineCap = 'round';
  pen.stroke(new Path2D(markOf(talk)));
  return toDataUrl(await canvas.convertToBlob({ type: 'image/png' }));
};

/** A small picture that was sent, if it can be had soon; it is asked for as whoever is signed in here. */
export const fetchPicture = async (fileId: string): Promise<string | undefined> => {
  const signal = AbortSignal.timeout(PICTURE_LONGEST_MS);
  const answer = await fetch(fileAddress(fileId, 'thumbnail'), { signal }).catch(() => null);
  if (!answer?.ok) return undefined;
  const blob = await answer.blob();
  return blob.size <= PICTURE_LARGEST_BYTES ? toDataUrl(blob) : undefined;
};
