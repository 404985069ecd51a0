import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type RequestListener, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import { type Browser, chromium } from 'playwright-core';
import { browserPath } from '../scripts/browser.mjs';
import { SLOW_4G } from './opening';

const TURNS = Number(process.env.BENCH_TURNS ?? 7);
const SLOWED = 4;
const viewport = { width: 390, height: 844 };

const listenOn = async (listener: RequestListener): Promise<{ origin: string; server: Server }> => {
  const server = createServer(listener);
  await once(server.listen(0, '127.0.0.1'), 'listening');
  const { port } = server.address() as { port: number };
  return { origin: `http://127.0.0.1:${port}`, server };
};

/** What a panel weighs on its way, gzipped: its script with what that needs at once, and its style. */
const weightOf = (pattern: RegExp): number =>
  readdirSync('widget/dist')
    .filter((name) => pattern.test(name))
    .reduce((sum, name) => sum + readFileSync(join('widget/dist', name)).length, 0);

/** A script of Preact that draws a head, some words and a field, made as heavy as ours. */
const bareScript = async (bytes: number): Promise<Buffer> => {
  const { outputFiles } = await build({
    stdin: {
      contents: `import { h, render } from 'preact';
        render(h('div', null, h('h1', null, 'Bare'), h('p', null, 'We are here.'), h('form', null, h('textarea', { 'aria-label': 'Message' }), h('button', null, 'Send'))), document.getElementById('panel'));`,
      resolveDir: process.cwd(),
    },
    bundle: true,
    minify: true,
    write: false,
    format: 'esm',
  });
  const code = outputFiles[0]?.text ?? '';
  const missing = Math.max(0, bytes - gzipSync(code, { level: 9 }).length);
  return gzipSync(
    `${code}/*${randomBytes(missing)
      .toString('base64')
      .slice(0, missing * 1.3)}*/`,
  );
};

/** The bare one: a button that puts a page with a field into a frame of another origin. */
const serveBare = async (): Promise<{ origin: string; servers: Server[] }> => {
  const script = await bareScript(weightOf(/^panel-(?!links|late).*\.js\.gz$/));
  const style = gzipSync(
    `/*${randomBytes(weightOf(/^panel-.*\.css\.gz$/)).toString('base64')}*/textarea{width:100%}`,
  );
  const inside = await listenOn((request, response) => {
    const send = (type: string, body: Buffer | string): void => {
      const isReady = typeof body !== 'string';
      response.writeHead(200, {
        'content-type': type,
        ...(isReady ? { 'content-encoding': 'gzip' } : {}),
      });
      response.end(body);
    };
    if (request.url === '/panel.js') return send('text/javascript', script);
    if (request.url === '/panel.css') return send('text/css', style);
    send(
      'text/html',
      '<!doctype html><html lang="en"><head><link rel="stylesheet" href="/panel.css"><script type="module" src="/panel.js"></script></head><body><main id="panel"></main></body></html>',
    );
  });
  const outside = await listenOn((_request, response) => {
    response.writeHead(200, { 'content-type': 'text/html' });
    response.end(`<!doctype html><html lang="en"><body><button>Open</button><script>
      document.querySelector('button').onclick = () => {
        const frame = document.createElement('iframe');
        frame.src = '${inside.origin}/';
        document.body.append(frame);
      };</script></body></html>`);
  });
  return { origin: outside.origin, servers: [inside.server, outside.server] };
};

/** From a tap until something can be typed into the field of the frame, in milliseconds. */
const tapped = async (browser: Browser, address: string, button: string): Promise<number> => {
  const context = await browser.newContext({ viewport, hasTouch: true });
  const page = await context.newPage();
  await page.goto(address);
  const plate = page.getByRole('button', { name: new RegExp(button) });
  await plate.waitFor();
  // Whatever the page does by itself is over.
  await page.waitForTimeout(3_000);
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Network.emulateNetworkConditions', { offline: false, ...SLOW_4G });
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  const start = performance.now();
  await plate.tap();
  const field = page.frameLocator('iframe').getByRole('textbox').first();
  await field.waitFor({ timeout: 60_000 });
  await field.pressSequentially('a');
  const took = performance.now() - start;
  await context.close();
  return took;
};

/** Both in turns. */
export const plates = async (): Promise<{ ours: number[]; bare: number[] }> => {
  const bare = await serveBare();
  const dataDir = mkdtempSync(join(tmpdir(), 'plate-'));
  const child = spawn('node', ['server/dist/bench/porch.js'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, DATA_DIR: dataDir },
  });
  const [{ listening, cookie, door, doorId }] = (await once(child, 'message')) as [
    { listening: number; cookie: string; door: string; doorId: string },
  ];
  const origin = `http://127.0.0.1:${listening}`;
  const site = await listenOn((_request, response) => {
    response.writeHead(200, { 'content-type': 'text/html' });
    response.end(
      `<!doctype html><html lang="en"><body><p>A shop</p><script async src="${origin}/loader.js" data-door="${door}"></script></body></html>`,
    );
  });
  await fetch(`${origin}/api/doors/${doorId}`, {
    method: 'PUT',
    headers: { cookie, origin, 'content-type': 'application/json' },
    body: JSON.stringify({ sites: [new URL(site.origin).host] }),
  });
  const browser = await chromium.launch({
    executablePath: browserPath(),
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const took = { ours: [] as number[], bare: [] as number[] };
  for (let turn = 0; turn < TURNS; turn += 1) {
    took.bare.push(await tapped(browser, bare.origin, 'Open'));
    took.ours.push(await tapped(browser, site.origin, 'Bench'));
  }
  await browser.close();
  for (const server of [...bare.servers, site.server]) server.close();
  child.kill('SIGKILL');
  rmSync(dataDir, { recursive: true, force: true });
  return took;
};
