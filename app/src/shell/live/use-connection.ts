import type { MyDoorbell } from '@porch/contract/doorbell';
import type { ToTeam } from '@porch/contract/live';
import type { Entry } from '@porch/core/conversation';
import { type QueryClient, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { lastKnown } from '../offline/offline';
import { doorbellKey } from '../session/doorbell';
import { followUpsKey } from '../session/follow-ups';
import { hoursKey } from '../session/hours';
import { houseKey, isForMe, linksKey } from '../session/house';
import { quickRepliesKey } from '../session/quick-replies';
import { hushHere, lookedAt } from './alerts';
import { applyNews, readAnew } from './apply';
import { ring } from './bell';
import { watchHere } from './here';
import { readTop } from './line';
import { outbox } from './outbox';
import { recent } from './recent';
import { readAhead } from './roll';
import { openTeamSocket, type TeamSocket } from './socket';
import { type Known, knownKey, live, serverNow } from './store';

const TOLD_AFTER_MS = 200;
const TYPING_TOLD_EVERY_MS = 3_000;
const RETRY_MS = 3_000;
/** What is on the screen comes first. */
const AHEAD_AFTER_MS = 2_500;

let socket: TeamSocket | null = null;
let typingToldAt = 0;

/** Tells the visitor that somebody writes an answer, now and then while they do. */
export const tellTyping = (conversationId: string): void => {
  if (Date.now() - typingToldAt < TYPING_TOLD_EVERY_MS) return;
  typingToldAt = Date.now();
  socket?.send({ do: 'typing', conversationId });
};

let seen: string | null = null;

/** Says which conversation is open here and in sight: whoever looks at it is not rung for it. */
export const tellSees = (conversationId: string | null): void => {
  if (seen === conversationId) return;
  seen = conversationId;
  socket?.send({ do: 'sees', conversationId });
};

/** The conversations in which a visitor said something. */
const spokenIn = (entries: readonly Entry[]): string[] =>
  entries
    .filter((entry) => entry.kind === 'visitor-said' && !entry.setAside)
    .map((entry) => entry.conversationId);

const ringHere = (client: QueryClient): void => {
  const known = client.getQueryData<MyDoorbell>(doorbellKey);
  ring(known ? known.doorbell.sound : 'two-notes');
};

/** Notes beside the caches up to where they go: both are kept together, and taken up together. */
const noteKnown = (client: QueryClient): void => {
  const { lamp, counts, offsetMs, seq, last } = live.now();
  client.setQueryData<Known>(knownKey, { lamp, counts, offsetMs, seq, last });
};

const hear = (
  client: QueryClient,
  message: ToTeam,
  tellHas: () => void,
  tellHere: () => void,
): void => {
  switch (message.say) {
    case 'welcome': {
      const { lamp, counts, seq, last, now } = message;
      live.set({
        lamp,
        counts: { ...live.now().counts, all: counts },
        isKnown: true,
        seq,
        last,
        offsetMs: now - Date.now(),
      });
      if (message.isTooMuch) {
        // It may be another past than the one that was heard of here.
        recent.forget();
        void readAnew(client);
      } else applyNews(client, message.entries, message.rows);
      if (isForMe(client, message.rows, spokenIn(message.entries))) ringHere(client);
      void hushHere(lookedAt(message.entries));
      // A new connection knows nothing of what was said over the last one.
      if (seen !== null) socket?.send({ do: 'sees', conversationId: seen });
      tellHere();
      noteKnown(client);
      tellHas();
      break;
    }
    case 'entries': {
      const { entries, rows, counts, seq, last } = message;
      applyNews(client, entries, rows);
      if (entries.some(({ kind }) => kind.startsWith('owed'))) {
        void client.invalidateQueries({ queryKey: followUpsKey });
      }
      const spoke = entries.filter(({ kind }) => kind === 'visitor-said');
      const typing = { ...live.now().typing };
      for (const { conversationId } of spoke) delete typing[conversationId];
      const known = live.now();
      live.set({
        counts: { ...known.counts, all: counts },
        typing,
        ...(seq > known.seq ? { seq, last } : {}),
      });
      if (isForMe(client, rows, spokenIn(spoke))) ringHere(client);
      void hushHere(lookedAt(entries));
      noteKnown(client);
      tellHas();
      break;
    }
    case 'lamp':
      live.set({ lamp: message.lamp, offsetMs: message.now - Date.now() });
      noteKnown(client);
      break;
    case 'typing': {
      const { typing } = live.now();
      live.set({ typing: { ...typing, [message.conversationId]: serverNow() } });
      break;
    }
    case 'house':
    case 'signed-out':
      void client.invalidateQueries({ queryKey: houseKey });
      void client.invalidateQueries({ queryKey: linksKey });
      void client.invalidateQueries({ queryKey: hoursKey });
      void client.invalidateQueries({ queryKey: doorbellKey });
      void client.invalidateQueries({ queryKey: quickRepliesKey });
      break;
    case 'line':
      void readAnew(client);
      break;
    case 'pulse':
      break;
  }
};

/** What a screen could not have without signal comes by itself once there is some. */
const askFailedAnew = (client: QueryClient): Promise<void> =>
  client.refetchQueries({ type: 'active', predicate: ({ state }) => state.status === 'error' });

/** Keeps every cache current while somebody is signed in. Mount once. */
export const useConnection = (isSignedIn: boolean): void => {
  const client = useQueryClient();
  useEffect(() => {
    if (!isSignedIn) return;
    let isOver = false;
    let told: ReturnType<typeof setTimeout> | undefined;
    let retry: ReturnType<typeof setTimeout> | undefined;
    let aheadTimer: ReturnType<typeof setTimeout> | undefined;

    const tellHas = (): void => {
      clearTimeout(told);
      told = setTimeout(() => socket?.send({ do: 'has', seq: live.now().seq }), TOLD_AFTER_MS);
    };

    const here = watchHere((is) => socket?.send({ do: 'here', ...is }));

    const listen = (): void => {
      socket = openTeamSocket({
        since: () => live.now(),
        hear: (message) => hear(client, message, tellHas, here.connected),
        changed: (isConnected) => {
          const isBack = isConnected && live.now().wasConnected;
          live.set({ isConnected, wasConnected: true });
          if (isConnected) {
            aheadTimer = setTimeout(
              () => void readAhead(client, () => !isOver && live.now().isConnected),
              AHEAD_AFTER_MS,
            );
            outbox.connected();
            void askFailedAnew(client);
          }
          // Perhaps it was refused because the session has ended, or something of the house was missed.
          if (isBack || !isConnected) void client.invalidateQueries({ queryKey: houseKey });
        },
      });
    };

    const begin = async (): Promise<void> => {
      // The first page says up to where it goes; the socket then asks for what came after it.
      const top = await readTop(client).catch(() => null);
      if (isOver) return;
      if (top) return listen();
      live.set({ isConnected: false, wasConnected: true });
      retry = setTimeout(begin, RETRY_MS);
    };

    // What this device kept says up to where it goes as well, and is there without signal.
    const known = lastKnown(client);
    if (known) {
      live.set({ ...known, isKnown: true });
      listen();
    } else void begin();
    void outbox.start(
      ({ entries, row, rows = [] }) => applyNews(client, entries, [row, ...rows]),
      // What was shown ahead of the server did not come true.
      ({ lane }) => {
        recent.forgetRow(lane);
        void readAnew(client);
      },
    );
    return () => {
      isOver = true;
      here.stop();
      clearTimeout(told);
      clearTimeout(retry);
      clearTimeout(aheadTimer);
      outbox.stop();
      socket?.close();
      socket = null;
      recent.forget();
      live.set({ isConnected: false, wasConnected: false, isKnown: false, seq: 0, last: null });
    };
  }, [client, isSignedIn]);
};
