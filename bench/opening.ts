import { execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { type Browser, type BrowserContext, chromium, type Page } from 'playwright-core';
import { browserPath } from '../scripts/browser.mjs';
import { porchRelay } from './load';

const SLOWED = 4;
const TURNS = Number(process.env.BENCH_TURNS ?? 9);
const DIST = 'bench/bare-app/dist';
const ROWS = 30;

/** What a row of ours says; the first stands at the top. */
const wordsOf = (at: number): string => `Words of row ${at}.`;
/** What was said before that, and stands only behind the row. */
const behind = (at: number): string => `What came before row ${at}.`;

const types: Readonly<Record<string, string>> = {
  '.html': 'text/html; charset=utf-8',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.json': 'application/json',
};

const filesBelow = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory())
      return entry.name === 'dist' || entry.name === '.expo' ? [] : filesBelow(path);
    return [path];
  });

/** Exports the bare app, unless it is there as it is now. */
const buildBareApp = (): void => {
  const hash = createHash('sha256').update(readFileSync('package-lock.json'));
  for (const path of filesBelow('bench/bare-app').sort()) hash.update(readFileSync(path));
  const mark = hash.digest('hex');
  const markPath = '.built/bare-app';
  if (existsSync(DIST) && existsSync(markPath) && readFileSync(markPath, 'utf8') === mark) return;
  execFileSync('npx', ['expo', 'export', '--platform', 'web'], {
    cwd: 'bench/bare-app',
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1' },
  });
  writeFileSync(markPath, mark);
};

/** Serves the bare app as ours is served: gzipped, and for good where a name carries a hash. */
const serveBareApp = async (): Promise<{ origin: string; server: Server }> => {
  const ready = new Map<string, Buffer>();
  const server = createServer((request, response) => {
    const path = new URL(request.url ?? '/', 'http://bare').pathname;
    const file = extname(path) && existsSync(join(DIST, path)) ? path : '/index.html';
    const body = ready.get(file) ?? gzipSync(readFileSync(join(DIST, file)), { level: 9 });
    ready.set(file, body);
    response.writeHead(200, {
      'content-type': types[extname(file)] ?? 'application/octet-stream',
      'content-encoding': 'gzip',
      'cache-control': /-[0-9a-f]{8,}\./.test(file)
        ? 'public, max-age=31536000, immutable'
        : 'no-cache',
    });
    response.end(body);
  });
  await once(server.listen(0, '127.0.0.1'), 'listening');
  return { origin: `http://127.0.0.1:${(server.address() as { port: number }).port}`, server };
};

/** When each thing was so for the first time and painted, in ms from the beginning of the page. */
interface Moments {
  read: number;
  tapped: number;
  largest: number;
}

/** Has the browser say when an element with these words is painted (Element Timing). */
const markWords = ({ words }: { words: string }): void => {
  const mark = (): void => {
    const texts = document.createTreeWalker(document, NodeFilter.SHOW_TEXT);
    while (texts.nextNode()) {
      const { nodeValue, parentElement } = texts.currentNode;
      if (nodeValue?.includes(words)) parentElement?.setAttribute('elementtiming', 'words');
    }
  };
  new MutationObserver(mark).observe(document, { childList: true, subtree: true });
};

/**
 * Notes when something could first be read (Element Timing: when an element with these words was painted) and when a
 * row of the app itself stood there, uncovered, with the page's thread free to take a tap.
 */
const watch = ({ readable }: { readable: string }): void => {
  const moments = { read: 0, tapped: 0, largest: 0 };
  Object.assign(window, { moments });
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) moments.largest = entry.startTime;
  }).observe({ type: 'largest-contentful-paint', buffered: true });
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) moments.read ||= entry.startTime;
  }).observe({ type: 'element', buffered: true });
  const isThere = (): boolean =>
    document.getElementById('before') === null &&
    [...document.querySelectorAll('#root [role="link"]')].some((row) =>
      row.textContent?.includes(readable),
    );
  const look = (): void => {
    if (!isThere()) return void requestAnimationFrame(look);
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      moments.tapped = performance.now();
    };
    port2.postMessage(0);
  };
  requestAnimationFrame(look);
};

const momentsOf = (page: Page): Promise<Moments> =>
  page.evaluate(() => (window as unknown as { moments: Moments }).moments);

const slowPage = async (context: BrowserContext, readable: string): Promise<Page> => {
  const page = await context.newPage();
  await page.addInitScript(markWords, { words: readable });
  await page.addInitScript(watch, { readable });
  const session = await context.newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  return page;
};

const viewport = { width: 390, height: 844 };
/** Slow 4G, as the browser's own tools have it. */
export const SLOW_4G = { latency: 562.5, downloadThroughput: 180_000, uploadThroughput: 84_375 };

/** When a row was tapped, and when words that stand behind it were painted, in ms from the beginning of the page. */
interface Tapped {
  at: number;
  read: number;
}

const watchTap = (): void => {
  const tapped: Tapped = { at: 0, read: 0 };
  Object.assign(window, { tapped });
  addEventListener(
    'click',
    ({ timeStamp }) => {
      tapped.at ||= timeStamp;
    },
    true,
  );
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) tapped.read ||= entry.startTime;
  }).observe({ type: 'element', buffered: true });
};

/** The first tap on a row since the app was opened, in milliseconds until one can read what stands behind it. */
const firstTap = async (
  context: BrowserContext,
  address: string,
  { row, behind }: { row: string; behind: string },
  isSlowed: boolean,
): Promise<number> => {
  const page = await context.newPage();
  await page.addInitScript(markWords, { words: behind });
  await page.addInitScript(watchTap);
  await page.goto(address);
  const link = page.getByRole('link').filter({ hasText: row }).first();
  await link.waitFor();
  // Whatever the app does by itself while nobody touches it is over.
  await page.waitForTimeout(5_000);
  if (isSlowed) {
    const session = await context.newCDPSession(page);
    await session.send('Network.enable');
    await session.send('Network.emulateNetworkConditions', { offline: false, ...SLOW_4G });
    await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  }
  await link.tap();
  const isRead = () => (window as unknown as { tapped: Tapped }).tapped.read > 0;
  await page.waitForFunction(isRead, undefined, { timeout: 60_000 });
  const { at, read } = await page.evaluate(() => (window as unknown as { tapped: Tapped }).tapped);
  await page.close();
  return read - at;
};

/** One opening of an app that the device has already. */
const opened = async (
  context: BrowserContext,
  address: string,
  readable: string,
): Promise<Moments> => {
  const page = await slowPage(context, readable);
  await page.goto(address);
  await page.waitForFunction(
    () => {
      const { read, tapped } = (window as unknown as { moments: Moments }).moments;
      return read > 0 && tapped > 0;
    },
    undefined,
    { timeout: 60_000 },
  );
  const moments = await momentsOf(page);
  await page.close();
  return moments;
};

/** One first visit ever, until nothing larger is painted. */
const visited = async (browser: Browser, address: string, readable: string): Promise<Moments> => {
  const context = await browser.newContext({ viewport });
  const page = await slowPage(context, readable);
  await page.goto(address, { waitUntil: 'load' });
  const isPainted = () => (window as unknown as { moments: Moments }).moments.largest > 0;
  await page.waitForFunction(isPainted, undefined, { timeout: 60_000 });
  // Something larger may come after it.
  await page.waitForTimeout(2_000);
  const moments = await momentsOf(page);
  await context.close();
  return moments;
};

/** A device of the owner's that has the app, and has seen the line with thirty who wait. */
const ownDevice = async (
  browser: Browser,
  origin: string,
  cookie: string,
): Promise<BrowserContext> => {
  const context = await browser.newContext({ viewport, hasTouch: true });
  const [name = '', value = ''] = cookie.split('=');
  await context.addCookies([{ name, value, url: origin }]);
  const page = await context.newPage();
  await page.goto(`${origin}/line`);
  await page.getByText(wordsOf(0)).waitFor();
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.waitForFunction(
    async () => {
      const known = await indexedDB.databases();
      return known.some(({ name: database }) => database === 'porch-start');
    },
    undefined,
    { timeout: 30_000 },
  );
  // Somebody has looked at the first of them before.
  await page
    .getByRole('link')
    .filter({ hasText: wordsOf(0) })
    .first()
    .tap();
  await page.getByText(behind(0)).waitFor();
  await page.goBack();
  await page.getByText(wordsOf(0)).waitFor();
  // What is kept is kept two seconds after it was drawn.
  await page.waitForTimeout(4_000);
  await page.close();
  return context;
};

export interface Openings {
  ours: Moments[];
  bare: Moments[];
  firstOurs: Moments[];
  firstBare: Moments[];
  /** The first tap on a row; with a processor and a network that are slowed as well. */
  taps: Record<'ours' | 'bare' | 'oursSlowed' | 'bareSlowed', number[]>;
}

/** Opens both apps in turns, on a processor that is slowed four times. */
export const openings = async (): Promise<Openings> => {
  buildBareApp();
  const bare = await serveBareApp();
  const dataDir = mkdtempSync(join(tmpdir(), 'opening-'));
  const child = spawn('node', ['server/dist/bench/porch.js'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, DATA_DIR: dataDir },
  });
  const [told] = (await once(child, 'message')) as [
    { listening: number; cookie: string; door: string },
  ];
  const origin = `http://127.0.0.1:${told.listening}`;
  const relay = porchRelay(told.listening, told.cookie, told.door);
  for (let at = 0; at < ROWS; at += 1) {
    const visitor = await relay.connectVisitor();
    for (const [id, words] of [
      [`bench-behind-${at}-id`, behind(at)],
      [`bench-row-${at}-id`, wordsOf(at)],
    ] as const) {
      const isTaken = new Promise<void>((taken) =>
        visitor.on('message', (data) => {
          const heard = JSON.parse(String(data)) as { say: string; id?: string };
          if (heard.say === 'taken' && heard.id === id) taken();
        }),
      );
      visitor.send(relay.message(id, words));
      await isTaken;
    }
  }
  const browser = await chromium.launch({
    executablePath: browserPath(),
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const result: Openings = {
    ours: [],
    bare: [],
    firstOurs: [],
    firstBare: [],
    taps: { ours: [], bare: [], oursSlowed: [], bareSlowed: [] },
  };
  const mine = await ownDevice(browser, origin, told.cookie);
  const theirs = await browser.newContext({ viewport, hasTouch: true });
  await opened(theirs, bare.origin, 'What row 0 says');
  for (let turn = 0; turn < TURNS; turn += 1) {
    result.bare.push(await opened(theirs, bare.origin, 'What row 0 says'));
    result.ours.push(await opened(mine, `${origin}/line`, wordsOf(0)));
    result.firstBare.push(await visited(browser, bare.origin, 'What row 0 says'));
    result.firstOurs.push(await visited(browser, origin, 'Sign in'));
  }
  const { taps } = result;
  const mineBehind = { row: wordsOf(0), behind: behind(0) };
  const theirsBehind = { row: 'What row 0 says', behind: 'What stood at 3 before row row-0' };
  for (let turn = 0; turn < TURNS; turn += 1) {
    taps.bare.push(await firstTap(theirs, bare.origin, theirsBehind, false));
    taps.ours.push(await firstTap(mine, `${origin}/line`, mineBehind, false));
    taps.bareSlowed.push(await firstTap(theirs, bare.origin, theirsBehind, true));
    taps.oursSlowed.push(await firstTap(mine, `${origin}/line`, mineBehind, true));
  }
  await browser.close();
  bare.server.close();
  child.kill('SIGKILL');
  rmSync(dataDir, { recursive: true, force: true });
  return result;
};
