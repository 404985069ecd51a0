import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { type ClientHttp2Session, connect as connectHttp2 } from 'node:http2';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect as connectTls } from 'node:tls';
import { WebSocket } from 'ws';
import { freePort, isThere } from './ports';

export const NAME = 'porch.example';

export type Program = 'nginx' | 'caddy';

/** The block for a program as docs/deploying.md has it. */
const blockFor = (program: Program): string => {
  const page = readFileSync(join(process.cwd(), 'docs/deploying.md'), 'utf8');
  const block = new RegExp(`\`\`\`${program}\n([\\s\\S]*?)\`\`\``).exec(page)?.[1];
  if (!block) throw new Error(`docs/deploying.md has no block for ${program}`);
  return block;
};

const replaced = (text: string, what: string, by: string): string => {
  if (!text.includes(what)) throw new Error(`the block says nothing of ${what}`);
  return text.replace(what, by);
};

interface Place {
  dir: string;
  port: number;
  /** Where it passes on to. */
  to: number;
  /** It ends TLS; otherwise another one before it does. */
  isOuter: boolean;
}

const nginxFor = ({ dir, port, to, isOuter }: Place, change: (block: string) => string): string => {
  let block = replaced(blockFor('nginx'), '127.0.0.1:4860', `127.0.0.1:${to}`);
  block = replaced(block, '/etc/ssl/porch.example.pem', join(dir, 'cert.pem'));
  block = replaced(block, '/etc/ssl/porch.example.key', join(dir, 'key.pem'));
  const listens = `127.0.0.1:${port}`;
  block = replaced(
    block,
    'listen 443 ssl http2',
    `listen ${listens}${isOuter ? ' ssl http2' : ''}`,
  );
  if (!isOuter) block = block.replace(/^ *ssl_.*$/gm, '');
  return `
daemon off;
user root;
pid ${dir}/pid;
error_log ${dir}/log;
events {}
http {
  access_log off;
  ${['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((name) => `${name}_temp_path ${dir}/${name};`).join('\n  ')}
  ${change(block)}
}`;
};

const caddyFor = ({ dir, port, to, isOuter }: Place, change: (block: string) => string): string => {
  let block = replaced(blockFor('caddy'), '127.0.0.1:4860', `127.0.0.1:${to}`);
  const tls = isOuter ? `\n  tls ${dir}/cert.pem ${dir}/key.pem` : '';
  const address = isOuter ? `https://${NAME}:${port}` : `http://:${port}`;
  block = replaced(block, `${NAME} {`, `${address} {\n  bind 127.0.0.1${tls}`);
  return `{
  admin off
  auto_https off
  log {
    output file ${dir}/log
  }
}
${change(block)}`;
};

const commands: Record<Program, (dir: string) => [string, string[]]> = {
  nginx: (dir) => ['/usr/sbin/nginx', ['-p', dir, '-c', join(dir, 'conf')]],
  caddy: (dir) => [
    '/usr/bin/caddy',
    ['run', '--adapter', 'caddyfile', '--config', join(dir, 'conf')],
  ],
};

export interface Hop {
  program: Program;
  /** What a test writes otherwise in the block. */
  change?: (block: string) => string;
}

export interface Answer {
  status: number;
  headers: Readonly<Record<string, unknown>>;
  text: string;
}

/**
 * Real proxies from Debian's packages before a house, the outer one first, which takes TLS and HTTP/2 for
 * `porch.example`; and a browser's ways through them.
 */
export const openRealProxies = async (hops: readonly Hop[], housePort: number) => {
  const dir = mkdtempSync(join(tmpdir(), 'proxy-'));
  chmodSync(dir, 0o755);
  const children: ChildProcess[] = [];
  const request = ['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1'];
  const files = ['-keyout', 'key.pem', '-out', 'cert.pem', '-nodes', '-days', '2'];
  const subject = ['-subj', `/CN=${NAME}`, '-addext', `subjectAltName=DNS:${NAME}`];
  const made = (at: string) =>
    execFileSync('openssl', [...request, ...files, ...subject], { cwd: at, stdio: 'ignore' });

  let to = housePort;
  for (const [inward, { program, change = (block: string) => block }] of [...hops]
    .reverse()
    .entries()) {
    const isOuter = inward === hops.length - 1;
    const own = mkdtempSync(join(dir, `${program}-`));
    if (isOuter || program === 'nginx') made(own);
    const port = await freePort();
    const write = program === 'nginx' ? nginxFor : caddyFor;
    writeFileSync(join(own, 'conf'), write({ dir: own, port, to, isOuter }, change));
    const [command, args] = commands[program](own);
    const env = { ...process.env, HOME: own, XDG_DATA_HOME: own, XDG_CONFIG_HOME: own };
    const child = spawn(command, args, { stdio: ['ignore', 'ignore', 'pipe'], env });
    let said = '';
    child.stderr?.on('data', (text) => {
      said += text;
    });
    children.push(child);
    while (!(await isThere(port))) {
      if (child.exitCode !== null) throw new Error(`${program} ended: ${said}`);
      await new Promise((resolve) => setTimeout(resolve, 25));
    }
    to = port;
  }

  const port = to;
  const secure = (protocols: string[]) =>
    connectTls({
      host: '127.0.0.1',
      port,
      servername: NAME,
      ALPNProtocols: protocols,
      rejectUnauthorized: false,
    });
  let http2: ClientHttp2Session | null = null;
  const session = (): ClientHttp2Session => {
    if (http2 && !http2.destroyed && !http2.closed) return http2;
    http2 = connectHttp2(`https://${NAME}`, { createConnection: () => secure(['h2']) });
    http2.on('error', () => {});
    return http2;
  };

  return {
    /** By HTTP/2, as a page of the house at its own name asks. */
    ask: (
      method: string,
      path: string,
      { body, headers = {} }: { body?: object | Buffer; headers?: Record<string, string> } = {},
    ): Promise<Answer> =>
      new Promise((resolve, reject) => {
        const bytes = Buffer.isBuffer(body) || !body ? body : Buffer.from(JSON.stringify(body));
        const stream = session().request({
          ':method': method,
          ':path': path,
          origin: `https://${NAME}`,
          ...(bytes ? { 'content-type': 'application/json' } : {}),
          ...headers,
        });
        let answered: Record<string, unknown> = {};
        let text = '';
        stream.on('response', (given) => {
          answered = given;
        });
        stream.setEncoding('utf8');
        stream.on('data', (part) => {
          text += part;
        });
        stream.on('end', () =>
          resolve({ status: Number(answered[':status']), headers: answered, text }),
        );
        stream.on('error', reject);
        stream.end(bytes);
      }),
    /** What an event stream says first, while it goes on, to a page of an origin. */
    firstOf: (path: string, origin: string): Promise<string> =>
      new Promise((resolve, reject) => {
        const stream = session().request({ ':path': path, origin, accept: 'text/event-stream' });
        stream.setEncoding('utf8');
        stream.once('data', (part) => {
          resolve(String(part));
          stream.close();
        });
        stream.on('error', reject);
      }),
    socket: (path: string, headers: Record<string, string>): WebSocket =>
      new WebSocket(`wss://${NAME}${path}`, {
        origin: `https://${NAME}`,
        headers,
        createConnection: () => secure(['http/1.1']),
      }),
    close: async (): Promise<void> => {
      http2?.destroy();
      for (const child of children) {
        if (child.exitCode !== null) continue;
        const ended = new Promise((resolve) => child.once('exit', resolve));
        child.kill('SIGTERM');
        await ended;
      }
      rmSync(dir, { recursive: true, force: true });
    },
  };
};
