import { createECDH, randomBytes } from 'node:crypto';
import { createServer, type IncomingHttpHeaders, type ServerResponse } from 'node:http';
import type { Subscription } from '@porch/contract/doorbell';
import type { PushLoad } from '@porch/core/ringing';
import ece from 'http_ece';
import type { House } from './house';
import { clientId } from './panel';

export interface Came {
  device: string;
  headers: IncomingHttpHeaders;
  /** What the device was told, opened by another implementation than the one that sealed it. */
  load: PushLoad;
}

type Answer = { status: number; headers?: Record<string, string> } | 'hold';

/** A push service with devices, near us: it answers as a test says and opens what comes. */
export const openPushService = async () => {
  const keys = new Map<string, { pair: ReturnType<typeof createECDH>; auth: Buffer }>();
  const came: Came[] = [];
  const answers = new Map<string, Answer[]>();
  const always = new Map<string, Answer>();
  const held: ServerResponse[] = [];
  const taken: Came[] = [];

  const open = (device: string, body: Buffer): PushLoad => {
    const known = keys.get(device);
    if (!known) throw new Error(`nobody knows ${device}`);
    const text = ece.decrypt(body, {
      version: 'aes128gcm',
      privateKey: known.pair,
      authSecret: known.auth.toString('base64url'),
    });
    return JSON.parse(text.toString('utf8'));
  };

  const server = createServer(async (request, response) => {
    const device = (request.url ?? '').split('/').at(-1) ?? '';
    const chunks: Buffer[] = [];
    for await (const chunk of request) chunks.push(chunk as Buffer);
    const one = { device, headers: request.headers, load: open(device, Buffer.concat(chunks)) };
    came.push(one);
    const answer = answers.get(device)?.shift() ?? always.get(device) ?? { status: 201 };
    if (answer !== 'hold' && answer.status === 201) taken.push(one);
    if (answer === 'hold') held.push(response);
    else response.writeHead(answer.status, answer.headers).end();
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as { port: number };
  const origin = `http://127.0.0.1:${port}`;

  const subscriptionOf = (device: string): Subscription => {
    const pair = createECDH('prime256v1');
    pair.generateKeys();
    const auth = randomBytes(16);
    keys.set(device, { pair, auth });
    return {
      endpoint: `${origin}/to/${device}`,
      keys: { p256dh: pair.getPublicKey('base64url'), auth: auth.toString('base64url') },
    };
  };

  return {
    origin,
    came,
    subscriptionOf,
    /** What came for a device, in order. */
    loadsOf: (device: string): PushLoad[] =>
      came.filter((one) => one.device === device).map(({ load }) => load),
    /** How the next pushes to a device are answered; then each is taken. */
    answer: (device: string, ...next: Answer[]): void => {
      answers.set(device, next);
    },
    /** How every push to a device is answered from now on; null: it is taken. */
    answerAlways: (device: string, answer: Answer | null): void => {
      if (answer) always.set(device, answer);
      else always.delete(device);
    },
    /** What was taken at once, in order. */
    taken: (): readonly Came[] => taken,
    release: (): void => {
      for (const response of held.splice(0)) response.writeHead(201).end();
    },
    /** Lets a device of whoever has this cookie ring; gives its id. */
    addDevice: async (house: House, cookie: string, device: string): Promise<string> => {
      const id = clientId();
      const body = { name: device, subscription: subscriptionOf(device) };
      const { status } = await house.ask('PUT', `/api/bell-devices/${id}`, { cookie, body });
      if (status !== 200) throw new Error(`${device} was refused: ${status}`);
      return id;
    },
    close: async (): Promise<void> => {
      for (const response of held.splice(0)) response.destroy();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
};

export type PushService = Awaited<ReturnType<typeof openPushService>>;
