import { type ChildProcess, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, type IncomingMessage, request } from 'node:http';
import { join } from 'node:path';
import { createTransport } from 'nodemailer';
import sharp from 'sharp';
import { WebSocket } from 'ws';

/** What one person does, and somebody else keeps from them as well as they can. */
export const besides = ['mail', 'orders', 'files'] as const;
export type Beside = (typeof besides)[number];

const EVERY_MS = 200;

interface Told {
  listening: number;
  mailPort: number;
  cookie: string;
  door: string;
}

/** Does one thing, and resolves when its house has said that it is done. */
type Doing = () => Promise<void>;

const mailing = async ({ mailPort }: Told): Promise<Doing> => {
  const transport = createTransport({ host: '127.0.0.1', port: mailPort, ignoreTLS: true });
  let made = 0;
  return async () => {
    made += 1;
    const messageId = `<honest-${made}@post.example>`;
    const mail = { from: 'wren@post.example', to: 'hello@porch.example', messageId };
    await transport.sendMail({ ...mail, subject: 'Ferns', text: `Are they in, number ${made}?` });
  };
};

const asking = async ({ listening, door }: Told): Promise<Doing> => {
  const origin = `http://127.0.0.1:${listening}`;
  const socket = new WebSocket(`ws://127.0.0.1:${listening}/door/${door}/live`, { origin });
  await once(socket, 'open');
  const token = randomBytes(32).toString('base64url');
  const heard = new Map<string, () => void>();
  socket.on('message', (data) => {
    const { id } = JSON.parse(String(data)) as { id?: string };
    if (id) heard.get(id)?.();
  });
  socket.send(JSON.stringify({ do: 'hello', token, since: 0, site: '' }));
  await once(socket, 'message');
  let made = 0;
  return () => {
    made += 1;
    const id = `honest-order-${made}-${token.slice(0, 8)}`;
    const asks = { do: 'order', id, number: 'QF-1101', contact: 'ada@post.example', page: null };
    return new Promise((resolve) => {
      heard.set(id, resolve);
      socket.send(JSON.stringify(asks));
    });
  };
};

/** Fewer files than one address may send in an hour. */
const OF_ONE_ADDRESS = 50;

const uploading = async ({ listening, door }: Told): Promise<Doing> => {
  const origin = `http://127.0.0.1:${listening}`;
  const background = '#2f6247';
  const create = { width: 64, height: 48, channels: 3 as const, background };
  const bytes = await sharp({ create }).png().toBuffer();
  const authorization = `Bearer ${randomBytes(32).toString('base64url')}`;
  const headers = {
    origin,
    authorization,
    'content-type': 'application/octet-stream',
    'content-length': bytes.length,
    'x-file-name': 'fern.png',
  };
  let made = 0;
  const agent = new Agent({ keepAlive: true });
  return async () => {
    const id = `honest-${randomBytes(8).toString('hex')}`;
    const path = `${origin}/door/${door}/files/${id}`;
    // Honest people, each from an address of their own: what one may send in an hour holds, for the other one as well.
    const localAddress = `127.0.1.${1 + Math.floor(made / OF_ONE_ADDRESS)}`;
    made += 1;
    const sending = request(path, { method: 'PUT', headers, localAddress, agent });
    sending.end(bytes);
    const [answer] = (await once(sending, 'response')) as [IncomingMessage];
    await once(answer.resume(), 'end');
    if (answer.statusCode !== 200) {
      throw new Error(`a picture was answered with ${answer.statusCode}`);
    }
  };
};

const doings: Record<Beside, (told: Told) => Promise<Doing>> = {
  mail: mailing,
  orders: asking,
  files: uploading,
};

/** What is not done by then was never done as far as anybody waits. */
const GIVEN_UP_MS = 10_000;
const givenUp = (): Promise<number> =>
  new Promise((resolve) => setTimeout(resolve, GIVEN_UP_MS, Number.POSITIVE_INFINITY));

/** How long each of many takes, one after the other at a steady pace; smallest first, in milliseconds. */
const timed = async (act: Doing, seconds: number): Promise<number[]> => {
  const took: number[] = [];
  const until = performance.now() + seconds * 1_000;
  while (performance.now() < until) {
    const begun = performance.now();
    took.push(await Promise.race([act().then(() => performance.now() - begun), givenUp()]));
    const restMs = EVERY_MS - (performance.now() - begun);
    if (restMs > 0) await new Promise((resolve) => setTimeout(resolve, restMs));
  }
  return took.sort((a, b) => a - b);
};

const end = async (child: ChildProcess): Promise<void> => {
  const gone = once(child, 'exit');
  child.kill('SIGKILL');
  await gone;
};

/** What it takes in a house with nobody else in it, and while somebody does their worst at the same place. */
export const besideOthers = async (
  which: Beside,
  seconds: number,
): Promise<{ idle: number[]; busy: number[] }> => {
  const dataDir = mkdtempSync(join(process.cwd(), '.built/bench-'));
  const server = spawn('node', ['server/dist/bench/porch.js'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, DATA_DIR: dataDir, WORST: '1', WITH_MAIL: '1' },
  });
  try {
    const [told] = (await once(server, 'message')) as [Told];
    const act = await doings[which](told);
    await timed(act, 1);
    const idle = await timed(act, seconds);
    const args = [which, String(told.listening), told.door, String(told.mailPort)];
    const attacker = spawn('node', ['server/dist/bench/attack.js', ...args], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    await once(attacker, 'message');
    await new Promise((resolve) => setTimeout(resolve, 1_000));
    const busy = await timed(act, seconds);
    await end(attacker);
    return { idle, busy };
  } finally {
    await end(server);
    rmSync(dataDir, { recursive: true, force: true });
  }
};
