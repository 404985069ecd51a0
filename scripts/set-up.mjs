// Everything that a fresh clone needs before it can run: packages, a browser for the tests, builds.
// Uses nothing but Node itself, because nothing else is there yet.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { leanBrowserPath, wholeBrowserPath } from './browser.mjs';

/** Programs from Debian's packages that tests run. */
const debianParts = [
  { name: 'chromium', path: wholeBrowserPath },
  { name: 'chromium-headless-shell', path: leanBrowserPath, isNeeded: false },
  {
    name: 'fonts-noto-color-emoji',
    path: '/usr/share/fonts/truetype/noto/NotoColorEmoji.ttf',
    isNeeded: false,
  },
  { name: 'dovecot-imapd', path: '/usr/lib/dovecot/imap' },
  { name: 'prosody', path: '/usr/bin/prosody' },
  { name: 'nginx', path: '/usr/sbin/nginx' },
  { name: 'caddy', path: '/usr/bin/caddy' },
  { name: 'python3-slixmpp', path: '/usr/lib/python3/dist-packages/slixmpp' },
];

const say = (text) => process.stdout.write(`${text}\n`);

const run = (command, args, options = {}) =>
  execFileSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'], ...options });

const hashOf = (paths) => {
  const hash = createHash('sha256');
  for (const path of paths) hash.update(path).update(readFileSync(path));
  return hash.digest('hex');
};

/** What a part is built from: its tests are not. */
const filesBelow = (folder) =>
  readdirSync(folder, { withFileTypes: true })
    .filter(
      ({ name }) =>
        !['node_modules', 'dist', '.expo', 'fonts', 'icons', 'test-kit', '.running'].includes(name),
    )
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) return filesBelow(path);
      return statSync(path).isFile() && !/\.test\.tsx?$/.test(path) ? [path] : [];
    });

const markOf = (name) => join('.built', name);
const isCurrent = (name, hash) =>
  existsSync(markOf(name)) && readFileSync(markOf(name), 'utf8') === hash;
const mark = (name, hash) => {
  mkdirSync('.built', { recursive: true });
  writeFileSync(markOf(name), hash);
};

/** What a lock file says should be there: path → version; without what fits other machines only. */
const wantedPackages = () =>
  Object.entries(JSON.parse(readFileSync('package-lock.json', 'utf8')).packages).filter(
    ([path, { optional, link }]) => path.startsWith('node_modules/') && !optional && !link,
  );

const hasPackages = () => {
  const installed = 'node_modules/.package-lock.json';
  if (!existsSync(installed)) return false;
  const { packages } = JSON.parse(readFileSync(installed, 'utf8'));
  return wantedPackages().every(([path, { version }]) => packages[path]?.version === version);
};

/** Installs the packages of the lock file, unless they are there. */
export const installPackages = () => {
  if (hasPackages()) return;
  say('Installing packages (the database is compiled, which takes some minutes) …');
  run('npm', ['ci', '--no-audit', '--no-fund']);
};

/**
 * Installs what the tests need of Debian, unless it is there: Chromium, a real mailbox, a real messenger
 * server and somebody else's client for it. It only starts that:
 * fetching them and compiling the database do not stand in each other's way. Resolves when all is there.
 */
export const installDebianParts = () => {
  const parts = debianParts.filter(({ path }) => !existsSync(path));
  const missing = parts.map(({ name }) => name);
  if (missing.length === 0) return Promise.resolve();
  say(`Installing what the tests need: ${missing.join(', ')} …`);
  const getting = (names) => `apt-get install -y -qq ${names.join(' ')}`;
  // What only makes it quicker is left out where there is none.
  const needed = parts.filter(({ isNeeded = true }) => isNeeded).map(({ name }) => name);
  const install = `apt-get update -qq && (${getting(missing)} || ${getting(needed)})`;
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const child = spawn('sh', ['-c', install], { stdio: ['ignore', 'ignore', 'inherit'], env });
  return new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('exit', (code) =>
      code === 0
        ? resolve()
        : reject(new Error(`${missing.join(', ')} could not be installed (${code})`)),
    );
  });
};

const parts = [
  {
    name: 'server',
    of: ['core', 'contract', 'server', 'street', 'demo', 'e2e/houses'],
    with: ['scripts/build-server.mjs', 'scripts/build-for-node.mjs'],
    out: [
      'server/dist/main.js',
      'server/dist/decoder.js',
      'server/dist/mail-reader.js',
      'server/dist/holidays.js',
      'server/dist/new-password.js',
      'server/dist/backup.js',
      'server/dist/restore.js',
      'street/dist/main.js',
      'demo/dist/fill.js',
      'e2e/dist/main.js',
    ],
  },
  {
    name: 'widget',
    of: ['core', 'contract', 'client', 'widget'],
    with: ['scripts/build-widget.mjs', 'scripts/css-as-text.mjs'],
    out: ['widget/dist/loader.js'],
  },
  {
    name: 'app',
    of: ['core', 'contract', 'client', 'app', 'docs/developers', 'docs/doors', 'docs/examples'],
    with: ['scripts/build-app.mjs', 'scripts/developer-pages.mjs'],
    out: ['app/dist/index.html'],
  },
];

/** Builds what has changed since it was last built, and only that. */
export const buildStale = () => {
  for (const part of parts) {
    const hash = hashOf([...part.of.flatMap(filesBelow), ...part.with, 'package-lock.json']);
    if (part.out.every((path) => existsSync(path)) && isCurrent(part.name, hash)) continue;
    say(`Building the ${part.name} …`);
    run('node', part.with.slice(0, 1));
    mark(part.name, hash);
  }
};

/** Runs a command to its end; gives whether it went well. */
export const succeeds = (command, args) =>
  spawnSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'] }).status === 0;

/**
 * Runs a built command of the server with what was typed behind it, and ends as it ends. It installs and builds nothing:
 * a server that runs meanwhile serves the files that it was built with.
 */
export const runBuilt = (script) => {
  if (!existsSync(script)) {
    say(`${script} is not built yet. Run "npm run build" once, then this command again.`);
    process.exit(1);
  }
  const { status } = spawnSync('node', [script, ...process.argv.slice(2)], { stdio: 'inherit' });
  process.exit(status ?? 1);
};

export { say };
