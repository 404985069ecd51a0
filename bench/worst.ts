import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type WebSocket from 'ws';
import { porchRelay, type Relay } from './load';

const EVERY_MS = 50;

/** How long each message of one quiet visitor waits for its acknowledgement, in milliseconds, smallest first. */
const acknowledgements = async (relay: Relay, seconds: number): Promise<number[]> => {
  const visitor: WebSocket = await relay.connectVisitor();
  const sent = new Map<string, number>();
  const took: number[] = [];
  visitor.on('message', (data) => {
    const { say, id } = JSON.parse(String(data)) as { say: string; id: string };
    const at = say === 'taken' ? sent.get(id) : undefined;
    if (at !== undefined) took.push(performance.now() - at);
  });
  const start = performance.now();
  for (let index = 0; index * EVERY_MS < seconds * 1_000; index += 1) {
    const dueMs = start + index * EVERY_MS - performance.now();
    if (dueMs > 0) await new Promise((resolve) => setTimeout(resolve, dueMs));
    const id = `quiet-visitor-${Math.round(start)}-${index}`;
    sent.set(id, performance.now());
    visitor.send(relay.message(id, 'Is somebody there?'));
  }
  await new Promise((resolve) => setTimeout(resolve, 2_000));
  visitor.terminate();
  // What was never acknowledged waited for longer than anybody looked.
  const missing = Array(sent.size - took.length).fill(Number.POSITIVE_INFINITY);
  return [...took, ...missing].sort((a, b) => a - b);
};

const end = async (child: ChildProcess): Promise<void> => {
  const gone = once(child, 'exit');
  child.kill('SIGKILL');
  await gone;
};

export const ways = ['words', 'pictures', 'bodies'] as const;

/** Acknowledgements of an idle house, and while somebody does their worst in each way. */
export const underAttack = async (
  seconds: number,
): Promise<Record<'idle' | (typeof ways)[number], number[]>> => {
  const dataDir = mkdtempSync(join(process.cwd(), '.built/bench-'));
  const server = spawn('node', ['server/dist/bench/porch.js'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, DATA_DIR: dataDir, WORST: '1' },
  });
  try {
    const [told] = (await once(server, 'message')) as [
      { listening: number; cookie: string; door: string },
    ];
    const relay = porchRelay(told.listening, told.cookie, told.door);
    const idle = await acknowledgements(relay, seconds);
    const attacked: Partial<Record<(typeof ways)[number], number[]>> = {};
    for (const way of ways) {
      const args = ['server/dist/bench/attack.js', way, String(told.listening), told.door];
      const attacker = spawn('node', args, { stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
      await once(attacker, 'message');
      await new Promise((resolve) => setTimeout(resolve, 1_000));
      attacked[way] = await acknowledgements(relay, seconds);
      await end(attacker);
    }
    return { idle, ...(attacked as Record<(typeof ways)[number], number[]>) };
  } finally {
    await end(server);
    rmSync(dataDir, { recursive: true, force: true });
  }
};
