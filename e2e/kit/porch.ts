import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  type Browser,
  type BrowserContext,
  test as base,
  expect,
  type FrameLocator,
  type Page,
} from '@playwright/test';
import type { Dressed } from '@porch/contract/dress';
import type { House } from '@porch/contract/house';
import type { Dress } from '@porch/core/dress';
import WebSocket from 'ws';
import { Houses, type Running, startServer } from './processes';

export { expect };

/** Thursday 12 November 2026, 10:00 in London. */
export const someDay = Date.UTC(2026, 10, 12, 10, 0, 0);

export const owner = {
  business: 'Quillfern Nursery',
  zone: 'Europe/London',
  name: 'Maren Oduya',
  email: 'maren@quillfern.example',
  password: 'fern-by-the-window',
};

/** How the street's networks know the business. */
export const networkAccounts = {
  texts: { account: 'quillfern', key: 'key-of-the-gateway' },
  pigeonpost: { account: '+447700900101', key: 'key-of-pigeonpost' },
  wavelet: { account: 'quillfern', key: 'key-of-wavelet' },
  tintype: { account: 'quillfern.nursery', key: 'key-of-tintype' },
  exchange: { account: '+442079460100', key: 'key-of-the-exchange' },
  townfinder: { account: 'quillfern-nursery', key: 'key-of-townfinder' },
} as const;

/** Below the ports that a system gives away by itself, apart for each of the runner's workers. */
const STREETS_FROM = 21_000;
const STREETS_OF_A_WORKER = 1_000;
/** Each has three ports in a row: its own, one for its mail, one for the house's. */
const PORTS_OF_A_STREET = 3;
const STREET_MAIL = 1;
const OWN_MAIL = 2;
/** A connection that says nothing is taken for one that has gone. */
const PULSE_MS = 20_000;
let streets = 0;

const nextStreetPort = (): number => {
  const worker = Number(process.env.TEST_PARALLEL_INDEX ?? 0);
  streets += PORTS_OF_A_STREET;
  return STREETS_FROM + worker * STREETS_OF_A_WORKER + (streets % (STREETS_OF_A_WORKER - 1));
};

/** A server on its own data, with the street beside it, at a time that the test sets. */
export class Porch {
  server!: Running;
  street: Running | null = null;
  private now = someDay;
  private readonly dataDir: string;
  /** Named before there is a street, for the server has to know where its push service will be. */
  private readonly streetPort = nextStreetPort();
  private cookie = '';
  private isAttended = false;
  private presence: WebSocket | null = null;

  /** `hasOwnServer`: in a process of its own, which can be killed. */
  constructor(
    name: string,
    private readonly houses: Houses,
    private readonly hasOwnServer: boolean,
  ) {
    this.dataDir = mkdtempSync(join(tmpdir(), `porch-${name}-`));
  }

  /** Where the street takes mail. */
  get streetMailPort(): number {
    return this.streetPort + STREET_MAIL;
  }

  get origin(): string {
    return `http://127.0.0.1:${this.server.port}`;
  }

  get site(): string {
    return `http://127.0.0.1:${this.street?.port}`;
  }

  /** `env`: what is set otherwise than usual. */
  async open(port = 0, env: Record<string, string> = {}): Promise<void> {
    const all = {
      PORT: String(port),
      DATA_DIR: this.dataDir,
      LOG_LEVEL: 'error',
      CLOCK: 'by-hand',
      CLOCK_START: String(this.now),
      PUSH_NEAR: `http://127.0.0.1:${this.streetPort}`,
      WITH_STREET: '1',
      NETWORKS_NEAR: `http://127.0.0.1:${this.streetPort}`,
      DEMO_WORLD_NEAR: `http://127.0.0.1:${this.streetPort}`,
      MAIL_PORT: String(this.streetPort + OWN_MAIL),
      ...env,
    };
    this.server = await (this.hasOwnServer ? startServer(all) : this.houses.open('house', all));
    await this.beHere();
  }

  /** A request as a page of ours would send it. */
  async ask<Answer>(
    method: 'GET' | 'POST' | 'PUT' | 'DELETE',
    path: string,
    body?: unknown,
  ): Promise<Answer> {
    const response = await fetch(this.origin + path, {
      method,
      headers: {
        origin: this.origin,
        cookie: this.cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
    const [cookie] = response.headers.getSetCookie();
    if (cookie) this.cookie = cookie.split(';')[0] ?? '';
    if (!response.ok) throw new Error(`${method} ${path} gave ${response.status}`);
    return response.status === 204 ? (null as Answer) : ((await response.json()) as Answer);
  }

  /** The business, its owner, and its website on the street with the plate. */
  async setUp(): Promise<void> {
    await this.ask('POST', '/api/set-up', { ...owner, code: this.server.firstCode });
    const { doors } = await this.ask<House>('GET', '/api/house');
    const door = doors[0];
    if (!door) throw new Error('no door was made');
    await this.openStreet(door.publicId);
    // Whoever walks through the set-up does so in a test of its own.
    await this.ask('PUT', '/api/business', { walkStep: 'done' });
    await this.ask('PUT', `/api/doors/${door.id}`, { sites: [new URL(this.site).host] });
    await this.openDayAndNight();
  }

  /** It is open at any hour, and somebody of the team has the app in sight. */
  async openDayAndNight(): Promise<void> {
    const week = Array.from({ length: 7 }, () => [{ from: 0, to: 1_440 }]);
    await this.ask('PUT', '/api/hours', { hours: { week, holidays: null, spells: [] } });
    this.isAttended = true;
    await this.beHere();
  }

  /** Says over a connection of its own, and over a new one once that has gone, that somebody is here. */
  private async beHere(): Promise<void> {
    if (!this.isAttended) return;
    if (this.presence?.readyState !== WebSocket.OPEN) {
      const { origin, cookie } = this;
      const socket = new WebSocket(`${origin.replace('http', 'ws')}/api/live`, {
        headers: { origin, cookie },
      });
      await once(socket, 'open');
      socket.on('error', () => undefined);
      const pulse = setInterval(() => socket.send('{"do":"pulse"}'), PULSE_MS);
      pulse.unref();
      socket.on('close', () => clearInterval(pulse));
      this.presence = socket;
    }
    const { presence } = this;
    presence.send(JSON.stringify({ do: 'here', isInSight: true, isTouched: true }));
    presence.send(JSON.stringify({ do: 'pulse' }));
    await Promise.race([once(presence, 'message'), once(presence, 'close')]);
  }

  /** Nobody of the team is here any more. */
  async leave(): Promise<void> {
    this.isAttended = false;
    this.presence?.close();
  }

  /** Quillfern Nursery's website, with a door's one line on its pages. */
  async openStreet(publicId: string): Promise<void> {
    this.street = await this.houses.open('street', {
      STREET_PORT: String(this.streetPort),
      STREET_MAIL_PORT: String(this.streetMailPort),
      PORCH_MAIL_PORT: String(this.streetPort + OWN_MAIL),
      PORCH_ORIGIN: this.origin,
      DOOR: publicId,
      QUIET: '1',
      CLOCK_START: String(this.now),
      NETWORKS: JSON.stringify(networkAccounts),
    });
  }

  /** Dresses the door as the owner would, and publishes it. */
  async dress(change: (dress: Dress) => void): Promise<void> {
    const { id } = await this.door();
    const { draft, revision } = await this.ask<Dressed>('GET', `/api/doors/${id}/dress`);
    change(draft);
    const saved = await this.ask<Dressed>('PUT', `/api/doors/${id}/draft`, {
      revision,
      dress: draft,
    });
    await this.ask('POST', `/api/doors/${id}/publish`, { revision: saved.revision });
  }

  /** Gives the house a file, as bytes. */
  async give(path: string, bytes: string): Promise<void> {
    const { origin, cookie } = this;
    const headers = { origin, cookie, 'content-type': 'application/octet-stream' };
    const response = await fetch(`${origin}${path}`, { method: 'POST', headers, body: bytes });
    if (!response.ok) throw new Error(`${path}: ${response.status}`);
  }

  /** Signs the kit itself in, where the owner was made on a screen. */
  async signIn(): Promise<void> {
    await this.ask('POST', '/api/sign-in', { email: owner.email, password: owner.password });
  }

  /** What the command on the server prints for an owner who forgot their password. */
  newPassword(): string {
    return execFileSync('node', ['server/dist/new-password.js'], {
      encoding: 'utf8',
      env: { ...process.env, DATA_DIR: this.dataDir, PUBLIC_ORIGIN: this.origin },
    });
  }

  async door(): Promise<House['doors'][number]> {
    const { doors } = await this.ask<House>('GET', '/api/house');
    const door = doors.find(({ isCarried }) => !isCarried);
    if (!door) throw new Error('there is no door');
    return door;
  }

  /** Sets the server's clock forward and lets it do what is due. */
  async pass(ms: number): Promise<void> {
    this.now += ms;
    await this.street?.setClock(this.now);
    await this.server.setClock(this.now);
    await this.beHere();
  }

  /** As a power cut does. */
  async kill(): Promise<number> {
    const { port } = this.server;
    await this.server.kill();
    return port;
  }

  /** As somebody who stops it does. */
  async stop(): Promise<number> {
    const { port } = this.server;
    await this.server.stop();
    return port;
  }

  private run(script: string, ...args: string[]): string {
    const env = { ...process.env, DATA_DIR: this.dataDir };
    return execFileSync('node', [`server/dist/${script}.js`, ...args], { encoding: 'utf8', env });
  }

  /** What the command on the server makes while the house runs; gives where it is. */
  backUp(): string {
    const to = join(this.dataDir, 'kept.sqlite');
    this.run('backup', to);
    return to;
  }

  restore(from: string): void {
    this.run('restore', from);
  }

  /** A second server on the same data: how it ended, and what it said. */
  async startAnother(): Promise<{ code: number | null; said: string }> {
    const child = spawn('node', ['server/dist/main.js'], {
      stdio: ['ignore', 'ignore', 'pipe'],
      env: { ...process.env, PORT: '0', DATA_DIR: this.dataDir },
    });
    let said = '';
    child.stderr.on('data', (text) => {
      said += text;
    });
    const [code] = (await once(child, 'close')) as [number | null];
    return { code, said };
  }

  async close(): Promise<void> {
    this.presence?.terminate();
    await this.street?.stop();
    await this.server.stop();
    rmSync(this.dataDir, { recursive: true, force: true });
  }
}

/** A page that fails the test when the browser finds anything wrong with it. */
export const watched = async (context: BrowserContext): Promise<Page> => {
  const page = await context.newPage();
  page.on('pageerror', (error) => {
    throw new Error(`the page failed: ${error.message}`);
  });
  page.on('console', (message) => {
    if (/Content Security Policy/.test(message.text())) throw new Error(message.text());
  });
  return page;
};

/** A page that keeps every shift of its layout; `shifts` reads them. */
export const shifting = async (context: BrowserContext) => {
  const page = await context.newPage();
  await page.addInitScript(() => {
    const shifts: number[] = [];
    Object.assign(window, { shifts });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries())
        shifts.push((entry as unknown as { value: number }).value);
    }).observe({ type: 'layout-shift', buffered: true });
  });
  const shifts = () => page.evaluate(() => (window as unknown as { shifts: number[] }).shifts);
  return { page, shifts };
};

/** Signs the owner in on a page. */
export const signInOn = async (page: Page, porch: Porch): Promise<void> => {
  await page.goto(porch.origin);
  // From then on it is the app that is signed in to, and not the page that stands there before it.
  await expect(page.getByRole('button', { name: 'Forgot the password?' })).toBeVisible();
  await page.getByLabel('Email').fill(owner.email);
  await page.getByLabel('Password').fill(owner.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(
    page.getByRole('button', { name: /^Porch light: (Answering|Back|Dark|Off)/ }),
  ).toBeVisible();
};

/** Signs the owner in by their cookie, and goes to the line: how somebody signs in has tests of its own. */
const goToLine = async (page: Page, porch: Porch): Promise<void> => {
  const response = await fetch(`${porch.origin}/api/sign-in`, {
    method: 'POST',
    headers: { origin: porch.origin, 'content-type': 'application/json' },
    body: JSON.stringify({ email: owner.email, password: owner.password }),
  });
  const cookies = response.headers.getSetCookie().map((cookie) => {
    const [name = '', ...value] = (cookie.split(';')[0] ?? '').split('=');
    const kept = { httpOnly: true, sameSite: 'Lax' as const };
    return { name, value: value.join('='), url: porch.origin, ...kept };
  });
  await page.context().addCookies(cookies);
  await page.goto(porch.origin);
  await expect(
    page.getByRole('button', { name: /^Porch light: (Answering|Back|Dark|Off)/ }),
  ).toBeVisible();
};

/** The owner's phone, signed in and looking at the line. */
export const ownerPhone = async (
  browser: Browser,
  porch: Porch,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<Page> => {
  const page = await watched(await browser.newContext(options));
  await goToLine(page, porch);
  return page;
};

/** A visitor's phone on the business's website, with the panel open. */
export const visitorPhone = async (browser: Browser, porch: Porch, path = '/') => {
  const context = await browser.newContext();
  const page = await watched(context);
  await page.goto(porch.site + path);
  return { context, page, ...(await openPanel(page)) };
};

/** Opens the plate on a page of the website. */
export const openPanel = async (page: Page) => {
  await page.getByRole('button', { name: /^Quillfern Nursery .*Write to us/ }).click();
  const panel = page.frameLocator('iframe[title="Conversation with Quillfern Nursery"]');
  const say = async (text: string): Promise<void> => {
    await panel.getByRole('textbox', { name: /^Your (message|note)$/ }).fill(text);
    await panel.getByRole('button', { name: /^(Send|Leave note)$/ }).click();
  };
  /** Opens what asks who writes: one line, once something was said. */
  const sayWho = (): Promise<void> =>
    panel.getByRole('button', { name: /^(Leaving soon|May we know|How can we reach)/ }).click();
  /** Opens what else there is. */
  const more = (): Promise<void> => panel.getByRole('button', { name: 'More' }).click();
  return { panel, say, sayWho, more };
};

/** The owner opens the only visitor's conversation. */
export const openVisitor = async (phone: Page, said: string): Promise<void> => {
  await phone.getByRole('link', { name: /^Visitor/ }).click();
  await expect(phone.getByRole('log')).toContainText(said);
};

/** Opens everything in the conversation that stands folded between what was said. */
export const unfold = async (phone: Page): Promise<void> => {
  const folded = phone.getByRole('log').getByRole('button', { expanded: false });
  await expect(folded.first()).toBeVisible();
  while ((await folded.count()) > 0) await folded.first().click();
};

/** The owner answers in the conversation that is open. */
export const answer = async (phone: Page, text: string): Promise<void> => {
  await phone.getByRole('textbox', { name: 'Your answer' }).fill(text);
  await phone.getByRole('button', { name: 'Send', exact: true }).click();
};

/** Chooses a file in the panel or the app, as from a phone's files. */
export const attach = async (
  page: Page,
  inside: Page | FrameLocator,
  file: { name: string; mimeType: string; buffer: Buffer },
): Promise<void> => {
  const choosing = page.waitForEvent('filechooser');
  await inside.getByRole('button', { name: 'Add a picture or file' }).click();
  await (await choosing).setFiles(file);
};

/** A test that kills or stops its server has this tag: its server is a process of its own. */
export const ownServer = { tag: '@own-server' };

let housesOfWorker: Houses | null = null;

export const test = base.extend<{ porch: Porch; emptyPorch: Porch }>({
  emptyPorch: async ({ browser, browserName }, use, { tags }) => {
    housesOfWorker ??= new Houses();
    const porch = new Porch(browserName, housesOfWorker, tags.includes(ownServer.tag));
    await porch.open();
    await use(porch);
    // Devices that a test opened would go on looking for its server beside all tests after it.
    await Promise.all(browser.contexts().map((context) => context.close()));
    await porch.close();
  },
  porch: async ({ emptyPorch }, use) => {
    await emptyPorch.setUp();
    await use(emptyPorch);
  },
});
