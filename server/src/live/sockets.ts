import type { WebSocket } from '@fastify/websocket';
import type { FastifyBaseLogger } from 'fastify';
import type { z } from 'zod';

/** A client that has not been heard of for this long is gone: a phone in a tunnel closes nothing. */
export const SILENCE_LONGEST_MS = 50_000;

/** Codes with which we close a socket; 4000 to 4999 are ours to give (RFC 6455, 7.4.2). */
export const closing = { badFrame: 4400, refused: 4403, signedOut: 4401 } as const;

/**
 * Reads a socket's frames as one schema says. A frame that is no JSON or no message of ours closes
 * the socket: a client of ours never sends one. Errors of a handler are logged, never thrown.
 */
export const listen = <Schema extends z.ZodType>(
  socket: WebSocket,
  log: FastifyBaseLogger,
  schema: Schema,
  handle: (message: z.infer<Schema>) => void | Promise<void>,
): void => {
  const silence = setTimeout(() => socket.terminate(), SILENCE_LONGEST_MS).unref();
  socket.on('error', (error) => log.debug({ error: error.message }, 'socket failed'));
  socket.on('close', () => clearTimeout(silence));
  socket.on('message', (data) => {
    silence.refresh();
    const message = parse(schema, String(data));
    if (message === null) return socket.close(closing.badFrame);
    Promise.resolve(handle(message)).catch((error) => {
      log.error(error);
      socket.close(1011);
    });
  });
};

const parse = <Schema extends z.ZodType>(schema: Schema, text: string): z.infer<Schema> | null => {
  try {
    const read = schema.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
};

/** Sends if anybody is still there; what is lost here is asked for again by seq. */
export const sendTo = (socket: WebSocket, text: string): void => {
  if (socket.readyState === socket.OPEN) socket.send(text);
};
