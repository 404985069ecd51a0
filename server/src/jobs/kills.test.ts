import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';

const KILLS = 20;
const JOBS = 500;

/** Beside the server's own build, from where it finds the packages. */
const built = join(__dirname, '../../dist/job-process.cjs');

const build = (): void => {
  mkdirSync(join(built, '..'), { recursive: true });
  execFileSync('node_modules/.bin/esbuild', [
    join(__dirname, '../../test-kit/job-process.ts'),
    '--bundle',
    '--platform=node',
    '--format=cjs',
    '--loader:.sql=text',
    '--external:better-sqlite3',
    '--log-level=error',
    `--outfile=${built}`,
  ]);
};

/** The same made-up numbers each time (Numerical Recipes' linear congruential generator). */
const createDice = (): (() => number) => {
  let state = 20_261_126;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
};

describe('jobs through twenty kills -9', () => {
  it('are each done, noted once, and known outside by one key, though it is slow, gone, or hears twice', async () => {
    build();
    const dir = mkdtempSync(join(tmpdir(), 'jobs-'));
    const path = join(dir, 'porch.sqlite');
    const dice = createDice();
    const asked = new Map<string, number>();
    const standIn = createServer((request, response) => {
      const key = String(request.headers['idempotency-key']);
      const luck = dice();
      // Gone before it has taken anything, or after: whoever asks cannot know which.
      if (luck < 0.15) return request.socket.destroy();
      asked.set(key, (asked.get(key) ?? 0) + 1);
      if (luck < 0.3) return request.socket.destroy();
      setTimeout(() => response.writeHead(200).end(), luck < 0.5 ? 40 : 0);
    });
    await new Promise<void>((resolve) => standIn.listen(0, '127.0.0.1', resolve));
    const { port } = standIn.address() as { port: number };

    const run = () => {
      const args = [built, path, `http://127.0.0.1:${port}/`, String(JOBS)];
      const child = spawn('node', args, { stdio: ['ignore', 'pipe', 'inherit'] });
      return { child, ended: once(child, 'exit'), begun: once(child.stdout, 'data') };
    };
    let killed = 0;
    for (; killed < KILLS; killed += 1) {
      const { child, begun, ended } = run();
      await Promise.race([begun, ended]);
      await new Promise((resolve) => setTimeout(resolve, dice() * 60));
      child.kill('SIGKILL');
      await ended;
    }
    const last = run();
    const said: string[] = [];
    last.child.stdout.on('data', (text) => said.push(String(text)));
    await last.ended;
    expect(said.join('')).toContain('over');

    const db = new Database(path);
    const noted = db.prepare('SELECT count(*) FROM noted').pluck().get();
    const left = db.prepare('SELECT count(*) FROM jobs').pluck().get();
    db.close();
    expect([noted, left, asked.size]).toEqual([JOBS, 0, JOBS]);
    // Otherwise nothing was tried here.
    expect([...asked.values()].some((times) => times > 1)).toBe(true);
    standIn.closeAllConnections();
    standIn.close();
    rmSync(dir, { recursive: true, force: true });
  }, 120_000);
});
