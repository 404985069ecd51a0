import { finished, PassThrough, type Readable } from 'node:stream';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { Refused } from '../refused';

const FREE_BYTES = 64 * 1024;
/** A phone at the edge of its net still manages this. */
const SLOWEST_BYTES_A_SECOND = 16 * 1024;

/** How long a body may take, by the length that it claims. */
const longestMs = (request: FastifyRequest, freeMs: number): number => {
  const bytes = Number(request.headers['content-length'] ?? 0) || 0;
  return freeMs + (Math.max(0, bytes - FREE_BYTES) / SLOWEST_BYTES_A_SECOND) * 1_000;
};

/** Whether a request says that it has a body (RFC 9112, 6). */
const hasBody = ({ headers }: FastifyRequest): boolean =>
  headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0;

/** Hands a body on, and gives it up when it takes too long to come: it would hold its place for ever. */
export const inGoodTime = (
  request: FastifyRequest,
  reply: FastifyReply,
  payload: Readable,
  freeMs: number,
): Readable => {
  if (!hasBody(request)) return payload;
  const body = new PassThrough();
  const timer = setTimeout(() => body.destroy(new Refused('too-slow')), longestMs(request, freeMs));
  const stop = (): void => clearTimeout(timer);
  payload.on('error', (error) => body.destroy(error));
  // Where nobody reads it, because it is of a kind that is not taken, nobody hears of its end.
  body.on('error', stop);
  body.on('close', () => {
    stop();
    payload.unpipe(body);
    // What is still to come is read to nowhere, so that the answer can go out.
    payload.resume();
  });
  // It was answered, whether anybody read it or not.
  finished(reply.raw, () => body.destroy());
  return payload.pipe(body);
};
