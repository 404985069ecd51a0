import type { FromVisitor, ToVisitor } from '@porch/contract/visitor';
import { backOffMs } from '@porch/core/send-queue';

const PULSE_MS = 20_000;
/** Nothing heard for this long: the line is dead, whatever the browser believes. */
const SILENCE_LONGEST_MS = 45_000;

export interface Connection {
  /** False when nothing can be sent now. */
  send(message: FromVisitor): boolean;
  /** Tries at once, without waiting for the next turn. */
  wake(): void;
}

/** A socket that comes back by itself; `hello` is said anew each time. */
export const connect = (options: {
  url: string;
  hello: () => FromVisitor;
  hear: (message: ToVisitor) => void;
  changed: (isOpen: boolean) => void;
}): Connection => {
  let socket: WebSocket | null = null;
  let tries = 0;
  let heardAt = 0;
  let timer = 0;
  let isWelcome = false;

  const send = (message: FromVisitor): boolean => {
    if (socket?.readyState !== WebSocket.OPEN) return false;
    socket.send(JSON.stringify(message));
    return true;
  };

  const open = (): void => {
    clearTimeout(timer);
    if (socket) return;
    const mine = new WebSocket(options.url);
    socket = mine;
    heardAt = Date.now();
    mine.onopen = () => send(options.hello());
    mine.onmessage = (event) => {
      heardAt = Date.now();
      const message = JSON.parse(event.data) as ToVisitor;
      if (message.say === 'welcome') {
        tries = 0;
        isWelcome = true;
        options.changed(true);
      }
      options.hear(message);
    };
    mine.onclose = () => {
      if (socket !== mine) return;
      drop();
    };
  };

  const drop = (): void => {
    const old = socket;
    socket = null;
    old?.close();
    if (isWelcome || tries === 0) options.changed(false);
    isWelcome = false;
    tries += 1;
    clearTimeout(timer);
    timer = window.setTimeout(open, backOffMs(tries) * (0.5 + Math.random() / 2));
  };

  const wake = (): void => {
    if (!socket) {
      tries = 0;
      open();
    }
  };

  setInterval(() => {
    if (!socket) return;
    if (Date.now() - heardAt > SILENCE_LONGEST_MS) drop();
    else send({ do: 'pulse' });
  }, PULSE_MS);
  addEventListener('online', wake);
  addEventListener('offline', () => {
    if (socket) drop();
  });
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') wake();
  });
  open();
  return { send, wake };
};
