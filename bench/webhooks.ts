import { fork } from 'node:child_process';
import { once } from 'node:events';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import type { NetworkDoor } from '@porch/contract/doors';
import Database from 'better-sqlite3';
import { type MadeNetwork, networkOf } from '../server/test-kit/networks';
import { porchRelay } from './load';

const WEBHOOKS = 2_000;
const OVER_MS = 10_000;
const PANELS = 100;
/** One in so many comes twice, and one in so many too late. */
const ONE_IN = 20;
const EVERY_MS = 50;

export interface Hook {
  path: string;
  body: string;
  headers: Record<string, string>;
}

/** How long until something that is handed over is acknowledged, in milliseconds. */
const hand = (port: number, { path, body, headers }: Hook, agent: Agent): Promise<number> =>
  new Promise((took, failed) => {
    const start = performance.now();
    const asked = request(
      { port, host: '127.0.0.1', method: 'POST', path, agent, headers },
      (answer) => {
        answer.resume();
        answer.on('end', () => {
          if (answer.statusCode !== 204) failed(new Error(`answered with ${answer.statusCode}`));
          else took(performance.now() - start);
        });
      },
    );
    asked.on('error', failed);
    asked.end(body);
  });

/** What four networks hand over, in the order in which they do: some twice, some after what was said later. */
const hooksFor = (
  doors: readonly { network: MadeNetwork; path: string; word: string }[],
  count: number,
): Hook[] => {
  const at = Date.now();
  const hooks = Array.from({ length: count }, (_none, index): Hook => {
    const door = doors[index % doors.length];
    if (!door) throw new Error('there is no door');
    const nth = index % ONE_IN === 7 ? index - doors.length : index;
    const id = `hook-${Math.max(0, nth)}-of-the-bench`;
    const body = door.network.body({ what: 'said', id, text: `Words ${nth}` }, at + nth) ?? '';
    return { path: door.path, body, headers: door.network.prove(body, door.word, at) };
  });
  for (let index = 3; index + 8 < hooks.length; index += ONE_IN) {
    const [early, late] = [hooks[index], hooks[index + 8]];
    if (early && late) {
      hooks[index] = late;
      hooks[index + 8] = early;
    }
  }
  return hooks;
};

/** Hands over as many a second, over 64 connections. */
const handAll = async (port: number, hooks: readonly Hook[]): Promise<number[]> => {
  const agent = new Agent({ keepAlive: true, maxSockets: 64 });
  const start = performance.now();
  const took: Promise<number>[] = [];
  for (const [index, hook] of hooks.entries()) {
    const dueMs = start + (index * OVER_MS) / WEBHOOKS - performance.now();
    if (dueMs > 1) await new Promise((resolve) => setTimeout(resolve, dueMs));
    took.push(hand(port, hook, agent));
  }
  const all = await Promise.all(took);
  agent.destroy();
  return all;
};

/** Hands over all of them at once, over 500 connections. */
export const handAtOnce = async (port: number, hooks: readonly Hook[]): Promise<void> => {
  const agent = new Agent({ keepAlive: true, maxSockets: 500 });
  await Promise.all(hooks.map((hook) => hand(port, hook, agent)));
  agent.destroy();
};

/** How many messages of networks a house has taken. */
export const inboundsIn = (dataDir: string): number => {
  const db = new Database(join(dataDir, 'porch.sqlite'), { readonly: true });
  const { count } = db.prepare('SELECT count(*) AS count FROM inbounds').get() as { count: number };
  db.close();
  return count;
};

const kinds = ['text', 'pigeonpost', 'tintype', 'townfinder'];

interface Told {
  listening: number;
  cookie: string;
  door: string;
}

/** Notes how long the visitor waits while something is done. */
type Beside = <Result>(work: () => Promise<Result>) => Promise<Result>;

/**
 * What four networks hand over while a hundred panels are open and one visitor talks: how long that visitor waits to be
 * acknowledged, before and meanwhile.
 */
const besideTalker = async (
  { listening: port, cookie, door }: Told,
  count: number,
  handOver: (hooks: readonly Hook[], beside: Beside) => Promise<unknown>,
) => {
  const origin = `http://127.0.0.1:${port}`;
  const ask = async <Answer>(method: string, path: string, body?: object): Promise<Answer> => {
    const headers = { origin, cookie, 'content-type': 'application/json' };
    const answer = await fetch(origin + path, { method, headers, body: JSON.stringify(body) });
    return (await answer.json()) as Answer;
  };
  const doors = [];
  for (const kind of kinds) {
    const network = networkOf(kind);
    const typed = { kind, name: kind, given: network.given };
    const { shows } = await ask<NetworkDoor>('POST', '/api/network-doors', typed);
    const path = new URL(shows.address ?? origin).pathname;
    doors.push({ network, path, word: shows.word ?? '' });
  }
  const hooks = hooksFor(doors, count);
  const relay = porchRelay(port, cookie, door);
  const panels = await Promise.all(Array.from({ length: PANELS }, relay.connectVisitor));
  const talker = await relay.connectVisitor();
  const sent = new Map<string, number>();
  let acks: number[] = [];
  talker.on('message', (data) => {
    const { say, id } = JSON.parse(String(data)) as { say: string; id: string };
    const at = say === 'taken' ? sent.get(id) : undefined;
    if (at !== undefined) acks.push(performance.now() - at);
  });
  let made = 0;
  const talk = setInterval(() => {
    made += 1;
    const id = `talker-of-the-bench-${made}`;
    sent.set(id, performance.now());
    talker.send(relay.message(id, 'Is somebody there?'));
  }, EVERY_MS);
  const noting =
    (into: number[]): Beside =>
    async (work) => {
      acks = [];
      const result = await work();
      into.push(...acks);
      return result;
    };
  const idle: number[] = [];
  await noting(idle)(() => new Promise((resolve) => setTimeout(resolve, 3_000)));
  const busy: number[] = [];
  await handOver(hooks, noting(busy));
  clearInterval(talk);
  for (const all of [idle, busy]) all.sort((a, b) => a - b);
  for (const socket of [...panels, talker]) socket.terminate();
  const unique = new Set(hooks.map(({ path, body }) => path + (/hook-\d+/.exec(body)?.[0] ?? '')));
  return { idle, busy, hooks, unique: unique.size };
};

/**
 * Two thousand within ten seconds, and the same bodies to the baseline, a second's worth in turns. `took`: how long each
 * waited to be acknowledged by ours and by the baseline, in the order in which they were handed over.
 */
export const burst = async (told: Told, barePort: number) => {
  const took: [ours: number[], bare: number[]] = [[], []];
  const secondsWorth = (WEBHOOKS * 1_000) / OVER_MS;
  const beside = await besideTalker(told, WEBHOOKS, async (hooks, noting) => {
    for (let from = 0; from < hooks.length; from += secondsWorth) {
      const some = hooks.slice(from, from + secondsWorth);
      const plain = some.map((hook) => ({ ...hook, path: '/in' }));
      took[1].push(...(await handAll(barePort, plain)));
      took[0].push(...(await noting(() => handAll(told.listening, some))));
    }
  });
  return { ...beside, took };
};

/** Three times as many, all at once. */
export const flood = (told: Told) =>
  besideTalker(told, 3 * WEBHOOKS, async (hooks, noting) => {
    const other = fork('server/dist/bench/hooks-at-once.js');
    await once(other, 'spawn');
    await noting(async () => {
      other.send({ port: told.listening, hooks });
      await once(other, 'message');
    });
    other.kill();
  });
