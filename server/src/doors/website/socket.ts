import type { WebSocket } from '@fastify/websocket';
import { FromVisitorSchema } from '@porch/contract/visitor';
import type { FastifyRequest } from 'fastify';
import { closing, listen, sendGathered, UNREAD_MOST_BYTES } from '../../live/sockets';
import { createBuckets } from '../../security/bucket';
import type { Routing } from '../../services';
import type { DoorRecord } from '../../store';
import { openTalk } from './talk';

/** One panel's socket on a website door. */
export const servePanel = (
  { services, settings }: Pick<Routing, 'services' | 'settings'>,
  door: DoorRecord,
  socket: WebSocket,
  request: FastifyRequest,
): void => {
  const { panelWordsAMinute } = settings.limits;
  const words = createBuckets(services.clock, panelWordsAMinute, 60_000);
  const talk = openTalk(services, door, request.ip, (message) =>
    sendGathered(socket, JSON.stringify(message), UNREAD_MOST_BYTES.panel),
  );
  const disconnect = services.connections.add(request.ip);
  listen(socket, request.log, FromVisitorSchema, {
    mayGoOn: () => words.take('') === 0,
    handle: async (message) => {
      if (!(await talk.hear(message))) socket.close(closing.refused);
    },
  });
  socket.on('close', () => {
    talk.end();
    disconnect();
  });
};
