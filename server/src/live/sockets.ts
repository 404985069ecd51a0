import type { WebSocket } from '@fastify/websocket';
import type { FastifyBaseLogger } from 'fastify';
import type { z } from 'zod';

/** A client that has not been heard of for this long is gone: a phone in a tunnel closes nothing. */
export const SILENCE_LONGEST_MS = 50_000;

/** Codes with which we close a socket; 4000 to 4999 are ours to give (RFC 6455, 7.4.2). */
export const closing = { badFrame: 4400, refused: 4403, signedOut: 4401, tooMuch: 4429 } as const;

/** So much may lie unread before somebody is cut off; they come back and ask since the seq they have. */
export const UNREAD_MOST_BYTES = { panel: 1024 * 1024, device: 16 * 1024 * 1024 } as const;

/**
 * Reads a socket's frames as one schema says. A frame that is no JSON or no message of ours closes
 * the socket: a client of ours never sends one. So does one too many, as `mayGoOn` says, before it is even
 * looked at. Errors of a handler are logged, never thrown.
 */
export const listen = <Schema extends z.ZodType>(
  socket: WebSocket,
  log: FastifyBaseLogger,
  schema: Schema,
  options: {
    mayGoOn: () => boolean;
    handle: (message: z.infer<Schema>) => void | Promise<void>;
  },
): void => {
  const silence = setTimeout(() => socket.terminate(), SILENCE_LONGEST_MS).unref();
  // What was in the same packet as a refused frame is still handed over; it is not heard any more.
  let isOver = false;
  const end = (code: number): void => {
    isOver = true;
    socket.close(code);
  };
  socket.on('error', (error) => log.debug({ error: error.message }, 'socket failed'));
  socket.on('close', () => {
    isOver = true;
    clearTimeout(silence);
  });
  socket.on('message', (data) => {
    if (isOver) return;
    silence.refresh();
    if (!options.mayGoOn()) return end(closing.tooMuch);
    const message = parse(schema, String(data));
    if (message === null) return end(closing.badFrame);
    Promise.resolve()
      .then(() => options.handle(message))
      .catch((error) => {
        log.error(error);
        end(1011);
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

type Corked = WebSocket & { _socket?: { cork(): void; uncork(): void } | null };
const gathering = new WeakSet<WebSocket>();

/**
 * What is sent to one socket in one turn (an entry, and that it was taken) goes out in one packet: each packet of its
 * own costs more than what is in it. Of the platform's own socket beneath (`ws` has no other way to say so).
 */
const gather = (socket: WebSocket): void => {
  const { _socket: below } = socket as Corked;
  if (!below?.cork || gathering.has(socket)) return;
  gathering.add(socket);
  below.cork();
  // Once all is done that follows from this without waiting for anything, and before whatever comes in next.
  queueMicrotask(() =>
    process.nextTick(() => {
      gathering.delete(socket);
      below.uncork();
    }),
  );
};

/** Sends if anybody is still there and reads; what is lost here is asked for again by seq. */
export const sendTo = (socket: WebSocket, text: string, unreadMostBytes: number): void => {
  if (socket.readyState !== socket.OPEN) return;
  if (socket.bufferedAmount > unreadMostBytes) {
    socket.terminate();
    return;
  }
  socket.send(text);
};

/** The same, together with whatever else is sent to it in this turn. */
export const sendGathered = (socket: WebSocket, text: string, unreadMostBytes: number): void => {
  gather(socket);
  sendTo(socket, text, unreadMostBytes);
};
