// The demo: Quillfern Nursery with six weeks of made-up conversations, and the street around it.
//   npm run demo            start (PORT, STREET_PORT, DATA_DIR in the environment)
//   npm run demo -- --fresh          with the data made anew
//   npm run demo -- --quiet-street   without visitors who write by themselves
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ownFiles } from './own-files.mjs';
import { buildStale, installPackages, say } from './set-up.mjs';

const options = process.argv.slice(2);
const port = process.env.PORT ?? '4860';
const streetPort = process.env.STREET_PORT ?? '4870';
const mailPort = process.env.MAIL_PORT ?? String(Number(port) + 5);
const streetMailPort = process.env.STREET_MAIL_PORT ?? String(Number(streetPort) + 5);
const dataDir = process.env.DATA_DIR ?? '.data/demo';
const origin = `http://127.0.0.1:${port}`;
const street = `http://127.0.0.1:${streetPort}`;

installPackages();
buildStale();

const isFresh = options.includes('--fresh');
if (isFresh || !existsSync(join(dataDir, 'porch.sqlite'))) {
  say('Making the demo data …');
  execFileSync('node', ['demo/dist/fill.js'], {
    stdio: 'inherit',
    env: {
      ...process.env,
      DATA_DIR: dataDir,
      STREET_ORIGIN: street,
      STREET_MAIL_PORT: streetMailPort,
    },
  });
}

/** Phones on the street that ring for the team: what they are told stands on its page. */
const devices = JSON.parse(readFileSync('demo/bell-devices.json', 'utf8'));

/** The street's networks know the business, and its doors know them. */
const setups = Object.fromEntries(
  JSON.parse(readFileSync('demo/networks.json', 'utf8')).map(
    ({ network, door, account, key, word }) => [
      network,
      { address: `${origin}/in/${door}`, account, key, word },
    ],
  ),
);

const children = [];

const launch = (script, env) =>
  new Promise((resolve, reject) => {
    const child = spawn('node', ['--enable-source-maps', script], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      env: { ...process.env, ...env },
    });
    children.push(child);
    child.once('message', resolve);
    child.once('exit', (code) => {
      reject(new Error(`${script} ended with ${code}`));
      stop(code ?? 1);
    });
  });

let isStopping = false;
const stop = (code) => {
  if (isStopping) return;
  isStopping = true;
  for (const child of children) child.kill('SIGTERM');
  setTimeout(() => process.exit(code), 500);
};
process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));

try {
  const { main, env } = ownFiles();
  await launch(main, {
    ...env,
    PORT: port,
    DATA_DIR: dataDir,
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    // The street's push service is on this machine; no other address on it may be sent to.
    PUSH_NEAR: street,
    DEMO_WORLD_NEAR: street,
    WITH_STREET: '1',
    NETWORKS_NEAR: [street, process.env.NETWORKS_NEAR].filter(Boolean).join(),
    MAIL_PORT: mailPort,
  });
  await launch('street/dist/main.js', {
    STREET_PORT: streetPort,
    PORCH_ORIGIN: origin,
    PORCH_MAIL_PORT: mailPort,
    STREET_MAIL_PORT: streetMailPort,
    NETWORKS: JSON.stringify(setups),
    QUIET: options.includes('--quiet-street') ? '1' : '',
  });
  for (const { device, privateKey, auth } of devices) {
    await fetch(`${street}/push/devices/${device}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ privateKey, auth }),
    });
  }
  const [owner] = JSON.parse(readFileSync('demo/accounts.json', 'utf8'));
  say(`Hello Porch is ready: ${origin}`);
  say(`  sign in:  ${owner.email}   ${owner.password}`);
  say(`  street:   ${street}   (Quillfern Nursery's website: write to the owner from there)`);
  say(
    `  phones:   ${street}/push   (what rings on the team's phones there, with switches for faults)`,
  );
  say(`  networks: ${street}/networks   (phones of people who write by other networks)`);
  say(`  mail:     ${street}/mail   (mailboxes for whatever is written by email)`);
  say('  stop:     Ctrl + C');
} catch (error) {
  say(`The demo could not start: ${error.message}`);
  say(`Is something else on port ${port} or ${streetPort}? Set PORT and STREET_PORT to others.`);
  stop(1);
}
