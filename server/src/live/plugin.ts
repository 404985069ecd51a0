import {
  type FromTeam,
  FromTeamSchema,
  type LetterToTeam,
  TeamLetterSchema,
  type ToTeam,
} from '@porch/contract/live';
import { threadMeant } from '@porch/core/conversation';
import { askingOf } from '../accounts/asking';
import { Refused } from '../refused';
import { createBuckets } from '../security/bucket';
import type { Routing } from '../services';
import { writerKey } from '../store';
import { closing, listen, sendTo, UNREAD_MOST_BYTES } from './sockets';

/** The team's socket: what happens, as it happens, to every device that is signed in. */
export const liveRoutes = async ({ app, services, settings }: Routing): Promise<void> => {
  const { hub, line, lamp, here, clock, reach, store, persons, registry } = services;
  const { shown, sessions, isOwnOrigin, connections } = services;

  const tellTyping = (memberId: string, conversationId: string): void => {
    const conversation = persons.standing(conversationId);
    const threadId = conversation && threadMeant(conversation.threads)?.threadId;
    const thread = threadId ? store.threads.byId(threadId) : null;
    if (!thread) return;
    const { name } = shown.person(memberId, thread.doorId);
    hub.tellVisitorTyping(writerKey(thread), name);
    registry.tellTyping(thread);
  };

  /** What a device is told for what it says; `listens` is called once it has said hello. */
  const answersTo = (
    memberId: string,
    message: FromTeam,
    listens: () => void,
    sees: (conversationId: string | null) => void = () => {},
    isInSight: (isIt: boolean) => void = () => {},
  ): ToTeam[] => {
    switch (message.do) {
      case 'hello':
        // Listening starts in the same turn as the reading, so nothing falls between them.
        listens();
        return [
          {
            say: 'welcome',
            now: clock.now(),
            lamp: lamp.forTeam(),
            houseMark: hub.houseMark(),
            ...line.since(message.since, message.last ?? null),
          },
        ];
      case 'typing':
        tellTyping(memberId, message.conversationId);
        return [];
      case 'has':
        reach.teamHas(message.seq);
        return [];
      case 'sees':
        sees(message.conversationId);
        return [];
      case 'here':
        isInSight(message.isInSight);
        if (message.isTouched) here.note(memberId);
        lamp.tell();
        return [];
      case 'pulse':
        return [{ say: 'pulse' }];
    }
  };

  app.get(
    '/api/live',
    {
      websocket: true,
      config: { who: 'team' },
      schema: {
        summary: 'The socket of a member’s device',
        refuses: ['origin-not-ours', 'too-many'],
      },
      preValidation: async (request) => {
        if (!isOwnOrigin(request)) throw new Refused('origin-not-ours');
        connections.refuseIfTooMany(request.ip);
      },
    },
    (socket, request) => {
      const { me, sessionHash } = askingOf(request);
      const words = createBuckets(clock, settings.limits.deviceWordsAMinute, 60_000);
      const sendText = (text: string): void => sendTo(socket, text, UNREAD_MOST_BYTES.device);
      const send = (message: ToTeam): void => sendText(JSON.stringify(message));
      const device = {
        memberId: me.id,
        sessionHash,
        isListening: false,
        sees: null as string | null,
        isInSight: false,
        send: sendText,
        close: () => {
          send({ say: 'signed-out' });
          socket.close(closing.signedOut);
        },
      };
      // It belongs to its session from its first moment, whether it ever says hello or not.
      const leave = hub.addDevice(device);
      const disconnect = connections.add(request.ip);
      if (!sessions.memberBy(sessionHash)) device.close();
      listen(socket, request.log, FromTeamSchema, {
        mayGoOn: () => words.take('') === 0,
        handle: (message) => {
          // A session may have ended without anybody knowing of this socket: it is asked again.
          if (message.do === 'hello' && !sessions.memberBy(sessionHash)) return device.close();
          const listens = (): void => {
            device.isListening = true;
          };
          const sees = (conversationId: string | null): void => {
            device.sees = conversationId;
          };
          const isInSight = (isIt: boolean): void => {
            device.isInSight = isIt;
          };
          for (const answer of answersTo(me.id, message, listens, sees, isInSight)) send(answer);
        },
      });
      socket.on('close', () => {
        leave();
        disconnect();
      });
    },
  );

  app.post(
    '/api/letters',
    {
      config: { who: 'team' },
      schema: {
        summary: 'The socket’s words as a letter, where no socket is let through',
        description: '`{ says: [hello, …] }`, answered by `{ says: […] }`',
        produces: ['application/json'],
        body: TeamLetterSchema,
      },
    },
    async (request): Promise<LetterToTeam> => {
      const { me } = askingOf(request);
      return { says: request.body.says.flatMap((said) => answersTo(me.id, said, () => {})) };
    },
  );
};
