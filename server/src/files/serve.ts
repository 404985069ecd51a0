import type { FastifyReply, FastifyRequest } from 'fastify';
import { Refused } from '../refused';
import type { FileRecord } from '../store';
import type { Files } from './files';

/** The name that a file came with, from a header; its bytes say what it is. */
export const nameOf = (request: FastifyRequest): string => {
  const header = request.headers['x-file-name'];
  try {
    return decodeURIComponent(String(header ?? '')).slice(0, 300);
  } catch {
    throw new Refused('bad-request', { field: 'x-file-name' });
  }
};

/** What a page may show or play: pictures that we encoded, and sounds, in which nothing runs. By what the bytes are. */
const isShown = ({ width, type }: FileRecord): boolean =>
  Boolean(width) || type.startsWith('audio/');

const disposition = (file: FileRecord): string => {
  const how = isShown(file) ? 'inline' : 'attachment';
  return `${how}; filename*=UTF-8''${encodeURIComponent(file.name).replace(/['()*]/g, escape)}`;
};

/** Sends a file's bytes: what may be shown as it is, anything else only ever to be downloaded. */
export const serveFile = (
  reply: FastifyReply,
  files: Files,
  file: FileRecord,
  asThumbnail: boolean,
) => {
  const thumbnail = asThumbnail ? files.thumbnail(file.id) : null;
  const shownType = isShown(file) ? file.type : 'application/octet-stream';
  return reply
    .headers({
      'content-type': thumbnail ? 'image/webp' : shownType,
      'content-disposition': disposition(file),
      'content-security-policy': "default-src 'none'; sandbox",
      'cache-control': 'private, max-age=31536000, immutable',
    })
    .send(thumbnail ?? files.whole(file.id));
};
