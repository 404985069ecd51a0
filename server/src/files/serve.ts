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

const disposition = (file: FileRecord): string => {
  const how = file.width ? 'inline' : 'attachment';
  return `${how}; filename*=UTF-8''${encodeURIComponent(file.name).replace(/['()*]/g, escape)}`;
};

/** Sends a file's bytes: pictures we encoded may be shown, anything else is only ever downloaded. */
export const serveFile = (
  reply: FastifyReply,
  files: Files,
  file: FileRecord,
  asThumbnail: boolean,
) => {
  const thumbnail = asThumbnail ? files.thumbnail(file.id) : null;
  const shownType = file.width ? file.type : 'application/octet-stream';
  return reply
    .headers({
      'content-type': thumbnail ? 'image/webp' : shownType,
      'content-disposition': disposition(file),
      'content-security-policy': "default-src 'none'; sandbox",
      'cache-control': 'private, max-age=31536000, immutable',
    })
    .send(thumbnail ?? files.whole(file.id));
};
