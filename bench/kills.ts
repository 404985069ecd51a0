import { type ChildProcess, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { systemClock } from '@porch/server/clock';
import { openDataFolder } from '@porch/server/data-folder';
import { hashSecret } from '@porch/server/security/tokens';
import WebSocket from 'ws';

const WRITERS = 50;

interface Writer {
  name: string;
  token: string;
  acknowledged: string[];
  /** Said and not acknowledged; after a kill it is said once more, under the same id. */
  pending: string | null;
  made: number;
}

interface Running {
  child: ChildProcess;
  port: number;
  door: string;
}

const startServer = async (dataDir: string): Promise<Running> => {
  const child = spawn('node', ['server/dist/bench/porch.js'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, DATA_DIR: dataDir },
  });
  const [told] = (await once(child, 'message')) as [{ listening: number; door: string }];
  return { child, port: told.listening, door: told.door };
};

/** Writes one message after another, each once the one before it was acknowledged; gives what ends it. */
const write = (writer: Writer, { port, door }: Running): (() => void) => {
  const socket = new WebSocket(`ws://127.0.0.1:${port}/door/${door}/live`, {
    origin: `http://127.0.0.1:${port}`,
  });
  const next = (): void => {
    if (writer.pending === null) {
      writer.pending = `${writer.name}-message-${writer.made}`;
      writer.made += 1;
    }
    const id = writer.pending;
    socket.send(JSON.stringify({ do: 'say', id, text: id, fileIds: [], page: null }));
  };
  socket.on('open', () =>
    socket.send(JSON.stringify({ do: 'hello', token: writer.token, since: 0, site: '' })),
  );
  socket.on('message', (data) => {
    const { say, id } = JSON.parse(String(data)) as { say: string; id: string };
    if (say === 'taken' && id === writer.pending) {
      writer.acknowledged.push(id);
      writer.pending = null;
    }
    if (say === 'welcome' || say === 'taken') next();
  });
  socket.on('error', () => {});
  return () => socket.terminate();
};

export interface Kept {
  acknowledged: number;
  lost: number;
  twice: number;
  outOfOrder: number;
}

const compare = (writers: readonly Writer[], dataDir: string): Kept => {
  const folder = openDataFolder(dataDir, systemClock);
  const doorId = folder.store.doors.all()[0]?.id ?? '';
  const kept: Kept = { acknowledged: 0, lost: 0, twice: 0, outOfOrder: 0 };
  for (const { token, acknowledged } of writers) {
    const thread = folder.store.threads.byWriter({ doorId, address: hashSecret(token) });
    const ids = folder.store.entries
      .allOf(thread?.id ?? '')
      .flatMap((entry) => (entry.kind === 'visitor-said' ? [entry.id] : []));
    const there = new Set(ids);
    const known = ids.filter((id) => acknowledged.includes(id));
    kept.acknowledged += acknowledged.length;
    kept.lost += acknowledged.filter((id) => !there.has(id)).length;
    kept.twice += ids.length - there.size;
    kept.outOfOrder += known.filter((id, index) => id !== acknowledged[index]).length;
  }
  folder.close();
  return kept;
};

/** Kills the server so often while fifty visitors write, and compares what was acknowledged with what is there. */
export const killed = async (times: number): Promise<Kept> => {
  const dataDir = mkdtempSync(join(process.cwd(), '.built/bench-'));
  const writers = Array.from(
    { length: WRITERS },
    (_, index): Writer => ({
      name: `writer-${index}`,
      token: randomBytes(32).toString('base64url'),
      acknowledged: [],
      pending: null,
      made: 0,
    }),
  );
  try {
    for (let kill = 0; kill < times; kill += 1) {
      const running = await startServer(dataDir);
      const ends = writers.map((writer) => write(writer, running));
      // Another moment each time: in the middle of a start, of a commit, of an answer.
      await new Promise((resolve) => setTimeout(resolve, 150 + ((kill * 97) % 900)));
      running.child.kill('SIGKILL');
      await once(running.child, 'exit');
      for (const endWriting of ends) endWriting();
    }
    return compare(writers, dataDir);
  } finally {
    rmSync(dataDir, { recursive: true, force: true });
  }
};
