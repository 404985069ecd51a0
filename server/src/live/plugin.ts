import {
  type FromTeam,
  FromTeamSchema,
  type LetterToTeam,
  TeamLetterSchema,
  type ToTeam,
} from '@porch/contract/team';
import { COOKIE, memberAsking } from '../accounts/plugin';
import { Refused } from '../refused';
import { isOwnOrigin } from '../security/origins';
import type { Room } from '../services';
import type { Device } from './hub';
import { closing, listen, sendTo } from './sockets';

/** The team's socket: what happens, as it happens, to every device that is signed in. */
export const liveRoom = async ({ app, services }: Room): Promise<void> => {
  const { hub, line, lamp, clock, reach, store, shown } = services;

  const tellTyping = (memberId: string, conversationId: string): void => {
    const conversation = store.conversations.byId(conversationId);
    if (!conversation) return;
    const { name } = shown.person(memberId, conversation.doorId);
    hub.tellVisitorTyping(conversation.tokenHash, name);
  };

  /** A device that says something and is answered; with an ear it is also told what happens meanwhile. */
  const openDevice = (memberId: string, ear: Omit<Device, 'memberId'> | null) => {
    let leave = (): void => {};
    return {
      leave: () => leave(),
      hear: (message: FromTeam): ToTeam[] => {
        switch (message.do) {
          case 'hello':
            leave();
            // Listening starts in the same turn as the reading, so nothing falls between them.
            if (ear) leave = hub.addDevice({ ...ear, memberId });
            return [
              {
                say: 'welcome',
                now: clock.now(),
                lamp: lamp.now(),
                houseMark: hub.houseMark(),
                ...line.since(message.since),
              },
            ];
          case 'typing':
            tellTyping(memberId, message.conversationId);
            return [];
          case 'has':
            reach.teamHas(message.seq);
            return [];
          case 'pulse':
            return [{ say: 'pulse' }];
        }
      },
    };
  };

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
      const send = (message: ToTeam): void => sendTo(socket, JSON.stringify(message));
      const device = openDevice(memberAsking(services, request).id, {
        secret: request.cookies[COOKIE] ?? '',
        send: (text: string) => sendTo(socket, text),
        close: () => {
          send({ say: 'signed-out' });
          socket.close(closing.signedOut);
        },
      });
      listen(socket, request.log, FromTeamSchema, (message) => {
        for (const answer of device.hear(message)) send(answer);
      });
      socket.on('close', () => device.leave());
    },
  );

  app.post(
    '/api/letters',
    { schema: { body: TeamLetterSchema } },
    async (request): Promise<LetterToTeam> => {
      const device = openDevice(memberAsking(services, request).id, null);
      return { says: request.body.says.flatMap(device.hear) };
    },
  );
};
