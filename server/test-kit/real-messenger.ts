import { type ChildProcess, spawn } from 'node:child_process';
import { createHash, createHmac, pbkdf2Sync } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { freePort, isThere } from './ports';

const PROSODY = '/usr/bin/prosody';
/** The interpreter that Debian's packages belong to. */
const PYTHON = '/usr/bin/python3';
const DOMAIN = 'post.test';

const configurationFor = (dir: string, port: number, filesPort: number): string => `
run_as_root = true
daemonize = false
pidfile = "${dir}/pid"
data_path = "${dir}/data"
log = { { levels = { min = "info" }, to = "file", filename = "${dir}/log" } }
interfaces = { "127.0.0.1" }
c2s_ports = { ${port} }
http_ports = { ${filesPort} }
http_interfaces = { "127.0.0.1" }
https_ports = {}
c2s_require_encryption = false
allow_registration = false
authentication = "internal_hashed"
modules_enabled = { "disco", "roster", "saslauth", "ping", "smacks", "offline", "mam" }
modules_disabled = { "s2s", "tls" }
limits = { c2s = { rate = "10mb/s" } }
VirtualHost "${DOMAIN}"
Component "files.${DOMAIN}" "http_file_share"
  http_external_url = "http://files.${DOMAIN}:${filesPort}/"
  http_host = "files.${DOMAIN}"
  http_file_share_size_limit = 1000000
  http_file_share_access = { "${DOMAIN}" }
`;

/** RFC 5802, 3: fewer rounds than servers take today, as each is waited for. */
const accountFor = (password: string): string => {
  const [salt, rounds] = ['salt', 4_096];
  const salted = pbkdf2Sync(password, salt, rounds, 20, 'sha1');
  const keyFor = (what: string) => createHmac('sha1', salted).update(what).digest();
  const stored = createHash('sha1').update(keyFor('Client Key')).digest('hex');
  const server = keyFor('Server Key').toString('hex');
  return `return { ["salt"] = "${salt}"; ["iteration_count"] = ${rounds}; ["stored_key"] = "${stored}"; ["server_key"] = "${server}" };\n`;
};

/** What somebody's client tells. */
export interface FarTold {
  here?: true;
  heard?: string;
  by?: string;
  id?: string;
  link?: string;
  arrived?: string;
  presence?: string;
  typing?: string;
  refused?: string;
}

const ended = (child: ChildProcess): Promise<unknown> =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => child.once('exit', resolve));

/** A real messenger's server and other people's clients, by packages from Debian: what nobody here made. */
export const openRealMessenger = async () => {
  const dir = mkdtempSync(join(tmpdir(), 'messenger-'));
  const accounts = join(dir, 'data', DOMAIN.replace('.', '%2e'), 'accounts');
  mkdirSync(accounts, { recursive: true });
  const [port, filesPort] = [await freePort(), await freePort()];
  writeFileSync(join(dir, 'conf.lua'), configurationFor(dir, port, filesPort));
  let server: ChildProcess | null = null;
  const clients: ChildProcess[] = [];

  const start = async (): Promise<void> => {
    server = spawn(PROSODY, ['--config', join(dir, 'conf.lua'), '-F'], { stdio: 'ignore' });
    const deadline = Date.now() + 60_000;
    while (!(await isThere(port))) {
      if (Date.now() > deadline) throw new Error(`the messenger did not start, see ${dir}/log`);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  };
  const stop = async (): Promise<void> => {
    const running = server;
    server = null;
    if (!running) return;
    running.kill('SIGTERM');
    await ended(running);
  };
  const account = (name: string, password = 'right'): string => {
    writeFileSync(join(accounts, `${name}.dat`), accountFor(password));
    return `${name}@${DOMAIN}`;
  };

  await start();
  return {
    port,
    dir,
    server: `127.0.0.1:${port}`,
    /** What may be asked of it though it is on this machine. */
    near: [`xmpp://127.0.0.1:${port}`, `http://files.${DOMAIN}:${filesPort}`],
    start,
    stop,
    /** Opens an account; gives its address. */
    account,
    /** An account is there no more. */
    dropAccount: (name: string): void => {
      rmSync(join(accounts, `${name}.dat`));
    },
    /** Somebody signs in with a client of their own. */
    person: async (name: string) => {
      const address = account(name);
      const script = join(process.cwd(), 'server/test-kit/far-client.py');
      const child = spawn(PYTHON, [script, address, 'right', '127.0.0.1', `${port}`], {
        stdio: ['pipe', 'pipe', 'pipe'],
      });
      clients.push(child);
      const told: FarTold[] = [];
      const errors: string[] = [];
      createInterface({ input: child.stdout }).on('line', (line) => told.push(JSON.parse(line)));
      child.stderr.on('data', (data) => errors.push(String(data)));
      const waitFor = async (isIt: (one: FarTold) => boolean): Promise<FarTold> => {
        const deadline = Date.now() + 20_000;
        for (;;) {
          const found = told.find(isIt);
          if (found) return found;
          if (Date.now() > deadline || child.exitCode !== null) {
            throw new Error(`never told: ${JSON.stringify(told)} ${errors.join('')}`);
          }
          await new Promise((resolve) => setTimeout(resolve, 20));
        }
      };
      await waitFor(({ here }) => here === true);
      return {
        address,
        told,
        waitFor,
        do: (what: object): void => {
          child.stdin.write(`${JSON.stringify(what)}\n`);
        },
        leave: async (): Promise<void> => {
          child.stdin.end();
          child.kill('SIGTERM');
          await ended(child);
        },
      };
    },
    close: async (): Promise<void> => {
      for (const child of clients) {
        child.kill('SIGKILL');
        await ended(child);
      }
      await stop();
      rmSync(dir, { recursive: true, force: true });
    },
  };
};
