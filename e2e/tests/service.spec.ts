import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  utimesSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { freePort } from '../../server/test-kit/ports';

// What docs/deploying.md says to do, done: started by npm, built anew meanwhile, backed up every night, ended.

/** A place of its own with the program in it, of which what is built may be taken away. */
const install = (): string => {
  const place = mkdtempSync(join(tmpdir(), 'installed-'));
  const built = ['server', 'app', 'widget'];
  for (const name of readdirSync('.')) {
    if (name === '.data' || name === '.git') continue;
    if (!built.includes(name)) symlinkSync(join(process.cwd(), name), join(place, name));
  }
  for (const part of built) {
    mkdirSync(join(place, part));
    for (const name of readdirSync(part)) {
      if (name === '.running') continue;
      const own = join(place, part, name);
      // Files themselves, so that nothing looks as if it were to be built anew.
      if (name === 'node_modules') symlinkSync(join(process.cwd(), part, name), own);
      else cpSync(join(part, name), own, { recursive: true });
    }
  }
  return place;
};

const saidBy = (child: ChildProcess, what: RegExp): Promise<string> =>
  new Promise((resolve, reject) => {
    let said = '';
    const hear = (text: Buffer): void => {
      said += text;
      if (what.test(said)) resolve(said);
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    child.once('exit', () => reject(new Error(said)));
  });

const isThere = async (origin: string): Promise<boolean> =>
  fetch(`${origin}/healthz`).then(
    () => true,
    () => false,
  );

test('a house that npm has started serves its own files to the end, and ends with npm', async () => {
  const place = install();
  const port = await freePort();
  const origin = `http://127.0.0.1:${port}`;
  const env = { ...process.env, PORT: `${port}`, DATA_DIR: join(place, 'data') };
  const npm = spawn('npm', ['start'], { cwd: place, env, stdio: ['ignore', 'pipe', 'pipe'] });
  try {
    await saidBy(npm, /listening on/);
    const page = await (await fetch(origin)).text();
    const [, script = ''] = /<script[^>]* src="([^"]+)"/.exec(page) ?? [];
    expect(script).toMatch(/\.js$/);
    // As a build does before it has made the new ones.
    for (const part of ['server', 'app', 'widget']) {
      rmSync(join(place, part, 'dist'), { recursive: true });
    }
    for (const path of [script, '/loader.js', '/line']) {
      const asked = await fetch(origin + path, { headers: { accept: 'text/html' } });
      expect([path, asked.status]).toEqual([path, 200]);
    }
    expect(readdirSync(join(place, 'server', '.running'))).toHaveLength(1);
  } finally {
    npm.kill('SIGTERM');
  }
  if (npm.exitCode === null && npm.signalCode === null) await once(npm, 'exit');
  await expect.poll(() => isThere(origin)).toBe(false);
  await expect.poll(() => readdirSync(join(place, 'server', '.running'))).toEqual([]);
  rmSync(place, { recursive: true });
});

test('the line for every night backs up again and again, and lets old ones go', async () => {
  const dir = mkdtempSync(join(tmpdir(), 'nightly-'));
  const page = readFileSync('docs/deploying.md', 'utf8');
  const [, line = ''] = /```cron\n[^\n]*\n\S+ \S+ \S+ \S+ \S+ porch ([^\n]+)\n```/.exec(page) ?? [];
  // Cron itself takes the backslashes away.
  const command = line
    .replaceAll('\\%', '%')
    .replace('/opt/hello-porch', process.cwd())
    .replaceAll('/var/lib/hello-porch', join(dir, 'data'))
    .replaceAll('/var/backups/hello-porch', join(dir, 'backups'));
  expect(command).toContain('npm run --silent backup');
  mkdirSync(join(dir, 'data'));
  const server = spawn('node', ['server/dist/main.js'], {
    env: { ...process.env, PORT: '0', DATA_DIR: join(dir, 'data') },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  await saidBy(server, /listening on/);
  const nightly = () => spawnSync('sh', ['-c', command], { encoding: 'utf8' });
  const kept = (): string[] => readdirSync(join(dir, 'backups'));
  expect(nightly().stderr).toBe('');
  const [first = ''] = kept();
  const long = (Date.now() - 40 * 24 * 3_600_000) / 1_000;
  utimesSync(join(dir, 'backups', first), long, long);
  const again = nightly();
  expect([again.status, again.stderr]).toEqual([0, '']);
  expect(kept()).toHaveLength(1);
  expect(kept()).not.toContain(first);
  server.kill('SIGTERM');
  await once(server, 'exit');
  rmSync(dir, { recursive: true });
});
