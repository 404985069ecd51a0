import { type FromTeam, FromTeamSchema, type ToTeam } from '@porch/contract/team';
import { COOKIE, memberAsking } from '../accounts/plugin';
import { Refused } from '../refused';
import { isOwnOrigin } from '../security/origins';
import type { Room } from '../services';
import { closing, listen, sendTo } from './sockets';

/** The team's socket: what happens, as it happens, to every device that is signed in. */
export const liveRoom = async ({ app, services }: Room): Promise<void> => {
  const { hub, line, lamp, clock, reach, store, shown } = services;

  app.get(
    '/api/live',
    {
      websocket: true,
      preValidation: async (request) => {
        if (!isOwnOrigin(request)) throw new Refused('origin-not-ours');
        memberAsking(services, request);
      },
    },
    (socket, request) => {
      const member = memberAsking(services, request);
      const send = (message: ToTeam): void => sendTo(socket, JSON.stringify(message));
      const device = {
        memberId: member.id,
        secret: request.cookies[COOKIE] ?? '',
        send: (text: string) => sendTo(socket, text),
        close: () => {
          send({ say: 'signed-out' });
          socket.close(closing.signedOut);
        },
      };
      let leave = (): void => {};

      const tellTyping = (conversationId: string): void => {
        const conversation = store.conversations.byId(conversationId);
        if (!conversation) return;
        const { name } = shown.person(member.id, conversation.doorId);
        hub.tellVisitorTyping(conversation.tokenHash, name);
      };

      const handle = (message: FromTeam): void => {
        switch (message.do) {
          case 'hello': {
            leave();
            // Listening starts in the same turn as the reading, so nothing falls between them.
            leave = hub.addDevice(device);
            const missed = line.since(message.since);
            send({ say: 'welcome', now: clock.now(), lamp: lamp.now(), ...missed });
            break;
          }
          case 'typing':
            tellTyping(message.conversationId);
            break;
          case 'has':
            reach.teamHas(message.seq);
            break;
          case 'pulse':
            send({ say: 'pulse' });
        }
      };

      listen(socket, request.log, FromTeamSchema, handle);
      socket.on('close', () => leave());
    },
  );
};
