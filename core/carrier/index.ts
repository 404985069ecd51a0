import { backOffMs } from '../send-queue';

/** Nothing heard for this long: the connection is dead, whatever the browser believes. */
export const SILENCE_LONGEST_MS = 45_000;
export const PULSE_EVERY_MS = 20_000;
/** No welcome within this: whatever stands between lets no socket through. */
export const WELCOME_LONGEST_MS = 10_000;
/** After so many sockets without a welcome letters are tried. */
export const SOCKETS_IN_VAIN = 2;
export const LETTER_EVERY_MS = 4_000;
/** A letter without an answer for this long is given up: it may have gone into a tunnel. */
export const LETTER_LONGEST_MS = 20_000;
/** Every so many letters a socket is tried beside them. */
export const LETTERS_BETWEEN_SOCKETS = 15;

/** Of a web socket (WHATWG) what is needed here. */
export interface Socket {
  readonly readyState: number;
  onopen: ((event: never) => void) | null;
  onmessage: ((event: never) => void) | null;
  onclose: ((event: never) => void) | null;
  send(text: string): void;
  close(): void;
}

/** `WebSocket.OPEN`. */
const OPEN = 1;

/** What stands around a carrier: a carrier itself touches neither network nor clock. */
export interface Means<Says, Told> {
  newSocket(): Socket;
  /** Sends a letter and gives its answer; null when it did not arrive, or nobody was let in. */
  post(says: Says[]): Promise<Told[] | null>;
  /** Does something after a while; gives what calls that off. */
  after(ms: number, deed: () => void): () => void;
  /** Epoch milliseconds. */
  now(): number;
  /** From 0 up to 1. */
  random(): number;
}

export interface Carrier<Says> {
  /** False when nothing can be sent now. What was sent may still be lost: `changed` tells. */
  send(message: Says): boolean;
  /** Tries at once, without waiting for the next turn. */
  wake(): void;
  /** The device says that there is no network. */
  sleep(): void;
  /** Says hello anew at once: whoever is here is somebody else than it was said. */
  anew(): void;
  /** For good. */
  close(): void;
}

/**
 * A connection to the server that comes back by itself; `hello` is said anew each time. It is a socket. Where
 * none is let through, letters (requests, one every four seconds, sooner when there is something to say)
 * carry the same words until a socket comes through.
 *
 * `changed(false)` is told at every failure: what was on its way may be lost, and has to be said anew.
 * `newsOf` turns what a later letter is told into what is new in it: only the first one is a welcome.
 */
export const openCarrier = <Says, Told extends { say: string }>(
  means: Means<Says, Told>,
  options: {
    hello: () => Says;
    pulse: Says;
    lettersMost: number;
    newsOf: (message: Told) => Told[];
    hear: (message: Told) => void;
    changed: (isOpen: boolean) => void;
  },
): Carrier<Says> => {
  let by: 'nothing' | 'socket' | 'letters' = 'nothing';
  let socket: Socket | null = null;
  let tries = 0;
  let letters = 0;
  let heardAt = 0;
  let isWriting = false;
  let isClosed = false;
  let outgoing: Says[] = [];
  let callOff = (): void => {};

  const soon = (ms: number, deed: () => void): void => {
    callOff();
    callOff = means.after(ms, deed);
  };

  const become = (next: typeof by): void => {
    if (by !== 'nothing' || next === 'nothing') options.changed(false);
    by = next;
    outgoing = [];
    if (next !== 'nothing') options.changed(true);
  };

  const overSocket = (message: Says): boolean => {
    if (socket?.readyState !== OPEN) return false;
    socket.send(JSON.stringify(message));
    return true;
  };

  const open = (): void => {
    callOff();
    if (socket || isClosed) return;
    let isWelcome = false;
    heardAt = means.now();
    const mine = means.newSocket();
    socket = mine;
    mine.onopen = () => {
      overSocket(options.hello());
    };
    mine.onmessage = ({ data }: { data: string }) => {
      if (socket !== mine) return;
      heardAt = means.now();
      const message = JSON.parse(data) as Told;
      if (message.say === 'welcome') {
        isWelcome = true;
        tries = 0;
        callOff();
        become('socket');
      }
      options.hear(message);
    };
    mine.onclose = () => {
      if (socket === mine) drop();
    };
    means.after(WELCOME_LONGEST_MS, () => {
      if (socket === mine && !isWelcome) drop();
    });
  };

  const drop = (): void => {
    const old = socket;
    socket = null;
    old?.close();
    if (isClosed) return;
    if (by === 'letters') {
      // It was only tried beside them.
      writeLater();
      return;
    }
    become('nothing');
    tries += 1;
    const next = tries >= SOCKETS_IN_VAIN ? () => void write() : open;
    soon(backOffMs(tries) * (0.5 + means.random() / 2), next);
  };

  const writeLater = (): void =>
    soon(outgoing.length > 0 ? 0 : LETTER_EVERY_MS, () => void write());

  const answerTo = (says: Says[]): Promise<Told[] | null> =>
    new Promise((resolve) => {
      const stopWaiting = means.after(LETTER_LONGEST_MS, () => resolve(null));
      void means.post(says).then((answer) => {
        stopWaiting();
        resolve(answer);
      });
    });

  const write = async (): Promise<void> => {
    if (isWriting || isClosed) return;
    isWriting = true;
    callOff();
    const says = [options.hello(), ...outgoing.splice(0, options.lettersMost - 1)];
    const answer = await answerTo(says);
    isWriting = false;
    if (by === 'socket' || isClosed) return;
    if (!answer) {
      become('nothing');
      tries += 1;
      open();
      return;
    }
    const isFirst = by === 'nothing';
    if (isFirst) become('letters');
    for (const message of isFirst ? answer : answer.flatMap(options.newsOf)) options.hear(message);
    letters += 1;
    if (letters % LETTERS_BETWEEN_SOCKETS === 0) open();
    writeLater();
  };

  const pulse = (): void => {
    if (isClosed) return;
    means.after(PULSE_EVERY_MS, pulse);
    if (!socket) return;
    if (means.now() - heardAt > SILENCE_LONGEST_MS) drop();
    else overSocket(options.pulse);
  };

  open();
  means.after(PULSE_EVERY_MS, pulse);
  return {
    send: (message) => {
      if (by !== 'letters') return overSocket(message);
      outgoing.push(message);
      void write();
      return true;
    },
    wake: () => {
      if (by === 'letters') void write();
      else if (!socket) {
        tries = 0;
        open();
      }
    },
    sleep: () => {
      if (socket) drop();
    },
    anew: () => {
      if (by === 'letters') {
        void write();
        return;
      }
      drop();
      tries = 0;
      open();
    },
    close: () => {
      isClosed = true;
      callOff();
      socket?.close();
      socket = null;
    },
  };
};
