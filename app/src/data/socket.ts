import type { FromTeam, ToTeam } from '@porch/contract/team';
import { backOffMs } from '@porch/core/send-queue';

const PULSE_MS = 20_000;
/** Nothing heard for this long: the line is dead, whatever the browser believes. */
const SILENCE_LONGEST_MS = 45_000;

export interface TeamSocket {
  send(message: FromTeam): void;
  close(): void;
}

/** A socket to the server that comes back by itself and says hello anew each time. */
export const openTeamSocket = (options: {
  since: () => number;
  hear: (message: ToTeam) => void;
  changed: (isConnected: boolean) => void;
}): TeamSocket => {
  let socket: WebSocket | null = null;
  let tries = 0;
  let heardAt = 0;
  let isClosed = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const send = (message: FromTeam): void => {
    if (socket?.readyState === WebSocket.OPEN) socket.send(JSON.stringify(message));
  };

  const open = (): void => {
    clearTimeout(timer);
    if (socket || isClosed) return;
    const { protocol, host } = location;
    const mine = new WebSocket(`${protocol === 'https:' ? 'wss' : 'ws'}://${host}/api/live`);
    socket = mine;
    heardAt = Date.now();
    mine.onopen = () => send({ do: 'hello', since: options.since() });
    mine.onmessage = (event) => {
      heardAt = Date.now();
      const message = JSON.parse(String(event.data)) as ToTeam;
      if (message.say === 'welcome') tries = 0;
      options.hear(message);
      if (message.say === 'welcome') options.changed(true);
    };
    mine.onclose = () => {
      if (socket === mine) drop();
    };
  };

  const drop = (): void => {
    const old = socket;
    socket = null;
    old?.close();
    options.changed(false);
    tries += 1;
    clearTimeout(timer);
    if (!isClosed) timer = setTimeout(open, backOffMs(tries) * (0.5 + Math.random() / 2));
  };

  const wake = (): void => {
    tries = 0;
    open();
  };
  const sleep = (): void => {
    if (socket) drop();
  };
  const look = (): void => {
    if (document.visibilityState === 'visible') wake();
  };

  const pulse = setInterval(() => {
    if (!socket) return;
    if (Date.now() - heardAt > SILENCE_LONGEST_MS) drop();
    else send({ do: 'pulse' });
  }, PULSE_MS);
  window.addEventListener('online', wake);
  window.addEventListener('offline', sleep);
  document.addEventListener('visibilitychange', look);
  open();

  return {
    send,
    close: () => {
      isClosed = true;
      clearInterval(pulse);
      clearTimeout(timer);
      window.removeEventListener('online', wake);
      window.removeEventListener('offline', sleep);
      document.removeEventListener('visibilitychange', look);
      socket?.close();
      socket = null;
    },
  };
};
