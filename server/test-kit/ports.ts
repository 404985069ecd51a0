import { connect, createServer } from 'node:net';

/** A port that nobody listens at just now. */
export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

/** Whether a server is there: it takes a connection, or says something by itself (`greets`). */
export const isThere = (port: number, { greets = false } = {}): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    socket.once(greets ? 'data' : 'connect', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });
