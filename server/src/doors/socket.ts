import type { WebSocket } from '@fastify/websocket';
import { FromVisitorSchema } from '@porch/contract/visitor';
import type { FastifyRequest } from 'fastify';
import { closing, listen, sendTo } from '../live/sockets';
import type { Services } from '../services';
import type { DoorRecord } from '../store';
import { openTalk } from './talk';

/** One panel's socket on a website door. */
export const servePanel = (
  services: Services,
  door: DoorRecord,
  socket: WebSocket,
  request: FastifyRequest,
): void => {
  const talk = openTalk(services, door, request.ip, (message) =>
    sendTo(socket, JSON.stringify(message)),
  );
  listen(socket, request.log, FromVisitorSchema, async (message) => {
    if (!(await talk.hear(message))) socket.close(closing.refused);
  });
  socket.on('close', talk.end);
};
