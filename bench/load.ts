import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import WebSocket from 'ws';

/** A relay under load: ours or the bare one, behind the same few functions. */
export interface Relay {
  connectOwner(): Promise<WebSocket>;
  connectVisitor(): Promise<WebSocket>;
  message(id: string, text: string): string;
}

/** Ours: a hello on every socket, then messages as the panel sends them. */
export const porchRelay = (port: number, cookie: string, door: string): Relay => {
  const origin = `http://127.0.0.1:${port}`;
  const open = async (path: string, headers: object, hello: object): Promise<WebSocket> => {
    const socket = new WebSocket(`ws://127.0.0.1:${port}${path}`, {
      origin,
      headers: { ...headers },
    });
    await once(socket, 'open');
    socket.send(JSON.stringify({ do: 'hello', since: 0, ...hello }));
    await once(socket, 'message');
    return socket;
  };
  return {
    connectOwner: () => open('/api/live', { cookie }, {}),
    connectVisitor: () =>
      open(`/door/${door}/live`, {}, { token: randomBytes(32).toString('base64url'), site: '' }),
    message: (id, text) => JSON.stringify({ do: 'say', id, text, fileIds: [], page: null }),
  };
};

export const bareRelay = (port: number): Relay => {
  const open = async (path: string): Promise<WebSocket> => {
    const socket = new WebSocket(`ws://127.0.0.1:${port}${path}`);
    await once(socket, 'open');
    return socket;
  };
  return {
    connectOwner: () => open('/owner'),
    connectVisitor: () => open('/'),
    message: (id, text) => JSON.stringify({ id, text }),
  };
};

interface Heard {
  say: string;
  id?: string;
  entries?: { id: string; text?: string }[];
}

const text = 'Is the big monstera from the window still there, and does it come with its pot?';

const newId = (() => {
  let made = 0;
  return () => {
    made += 1;
    return `bench-message-${made}`;
  };
})();

const hearIds = (socket: WebSocket, heard: (id: string) => void): void => {
  socket.on('message', (data) => {
    const message = JSON.parse(String(data)) as Heard;
    if (message.say !== 'entries') return;
    for (const entry of message.entries ?? []) if (entry.text) heard(entry.id);
  });
};

/** Messages a second that reach the owner while `count` visitors each write as fast as they are acknowledged. */
export const throughput = async (relay: Relay, count: number, seconds: number): Promise<number> => {
  const owner = await relay.connectOwner();
  const visitors = await Promise.all(Array.from({ length: count }, relay.connectVisitor));
  let reached = 0;
  hearIds(owner, () => {
    reached += 1;
  });
  for (const visitor of visitors) {
    visitor.on('message', (data) => {
      const { say } = JSON.parse(String(data)) as Heard;
      if (say === 'taken') visitor.send(relay.message(newId(), text));
    });
    visitor.send(relay.message(newId(), text));
  }
  await new Promise((resolve) => setTimeout(resolve, 1_500));
  const from = reached;
  const start = performance.now();
  await new Promise((resolve) => setTimeout(resolve, seconds * 1_000));
  const perSecond = ((reached - from) * 1_000) / (performance.now() - start);
  for (const socket of [...visitors, owner]) socket.terminate();
  return perSecond;
};

/** Messages at a steady rate through a relay, in rounds: two of them are measured in turns, on the same machine. */
export const openTrips = async (relay: Relay) => {
  const owner = await relay.connectOwner();
  const visitors = await Promise.all(Array.from({ length: 50 }, relay.connectVisitor));
  const sent = new Map<string, number>();
  const took: number[] = [];
  hearIds(owner, (id) => {
    const at = sent.get(id);
    if (at !== undefined) took.push(performance.now() - at);
  });
  return {
    /** How long each took from a visitor's socket to the owner's so far, in milliseconds. */
    took,
    round: async (perSecond: number, seconds: number): Promise<void> => {
      const start = performance.now();
      for (let index = 0; index < perSecond * seconds; index += 1) {
        const dueMs = start + (index * 1_000) / perSecond - performance.now();
        if (dueMs > 0) await new Promise((resolve) => setTimeout(resolve, dueMs));
        const id = newId();
        sent.set(id, performance.now());
        visitors[index % visitors.length]?.send(relay.message(id, text));
      }
      await new Promise((resolve) => setTimeout(resolve, 500));
    },
    end: (): void => {
      for (const socket of [...visitors, owner]) socket.terminate();
    },
  };
};
