/** @jest-environment node */

import { type Dress, plainDress, plateViewOf, rulesOf, viewOf } from '@porch/core/dress';
import { build } from 'esbuild';
import { JSDOM } from 'jsdom';

const passing = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until something is there; what never comes fails the test by its own time. */
const there = async <Thing>(look: () => Thing | null | undefined): Promise<Thing> => {
  for (;;) {
    const found = look();
    if (found) return found;
    await passing(10);
  }
};

/** Pages that a test has opened; they end with it, and their timers with them. */
const opened: JSDOM[] = [];
afterEach(() => {
  for (const dom of opened.splice(0)) dom.window.close();
});

/** The loader as it is built, run on a page of its own. */
const standOn = async (options: {
  answers: string | null;
  talked?: boolean;
  path?: string;
  language?: string;
}) => {
  const { outputFiles } = await build({
    entryPoints: ['widget/src/loader/loader.ts'],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    // The page's own import cannot be played; a function of the test stands in for it.
    banner: { js: 'var ask = window.ask;' },
  });
  const code = (outputFiles[0]?.text ?? '').replace(/import\(/g, 'ask(');
  const dom = new JSDOM(
    `<!doctype html><html lang="${options.language ?? ''}"><body><p>A shop</p></body></html>`,
    {
      url: `https://quillfern.example${options.path ?? '/shop'}`,
      runScripts: 'outside-only',
      pretendToBeVisual: true,
    },
  );
  opened.push(dom);
  const { window } = dom;
  const asked: string[] = [];
  const failures: string[] = [];
  window.addEventListener('error', (event) => failures.push(event.message));
  if (options.talked) window.localStorage.setItem('hello-porch:door-1', 'talked');
  const streams: {
    url: string;
    close: jest.Mock;
    onmessage?: (event: { data: string }) => void;
  }[] = [];
  Object.assign(window, {
    ask: async (url: string) => {
      asked.push(url);
      if (options.answers === null) throw new TypeError('no server');
      return { default: JSON.parse(options.answers) };
    },
    CSSStyleSheet: class {
      replaceSync(): void {}
    },
    EventSource: class {
      close = jest.fn();
      constructor(public url: string) {
        streams.push(this as never);
      }
    },
    requestIdleCallback: (work: () => void) => work(),
    matchMedia: () => ({ matches: false }),
  });
  const script = window.document.createElement('script');
  script.setAttribute('data-door', 'door-1');
  Object.defineProperty(script, 'src', { value: 'https://porch.example/loader.js' });
  Object.defineProperty(window.document, 'currentScript', { value: script });
  const paste = () => window.eval(code);
  paste();
  await passing(20);
  const hosts = () => [...window.document.querySelectorAll('hello-porch')];
  const plate = () => hosts()[0]?.shadowRoot?.querySelector('button') ?? null;
  const frame = () => hosts()[0]?.shadowRoot?.querySelector('iframe') ?? null;
  return { window, paste, asked, failures, streams, hosts, plate, frame };
};

const business = { name: 'Quillfern', address: '', picture: null, people: [] };

const configuration = (
  lamp: object = { state: 'lit', until: null },
  change: (dress: Dress) => void = () => {},
): string => {
  const dress = plainDress();
  change(dress);
  return JSON.stringify({
    door: 'door-1',
    lamp,
    now: Date.now(),
    ...plateViewOf(viewOf(dress, business, 'en')),
    rules: rulesOf(dress),
  });
};

describe('the loader on somebody\u2019s page', () => {
  it('asks once how the door is set and draws a plate, and nothing more', async () => {
    const page = await standOn({ answers: configuration() });
    expect(page.asked).toEqual(['https://porch.example/door/door-1/configuration.js?language=en']);
    expect(page.plate()?.getAttribute('aria-label')).toBe('Write to Quillfern. Answering now');
    expect(page.frame()).toBeNull();
    expect(page.window.document.cookie).toBe('');
    expect(page.window.localStorage).toHaveLength(0);
  });

  it('leaves the page as it was when our server is down', async () => {
    const page = await standOn({ answers: null });
    expect(page.hosts()).toHaveLength(0);
    expect(page.failures).toEqual([]);
  });

  it('stands once, though it was pasted twice', async () => {
    const page = await standOn({ answers: configuration() });
    page.paste();
    await passing(20);
    expect(page.hosts()).toHaveLength(1);
  });

  it('loads the panel when it is opened, and closes the lamp\u2019s stream for it', async () => {
    const page = await standOn({ answers: configuration() });
    page.plate()?.click();
    expect(page.frame()?.getAttribute('src')).toBe(
      'https://porch.example/door/door-1/panel?language=en',
    );
    expect(page.frame()?.hidden).toBe(false);
    expect(page.plate()?.getAttribute('aria-expanded')).toBe('true');
    expect(page.streams[0]?.close).toHaveBeenCalled();
  });

  it('says what the lamp says, as it says it', async () => {
    const page = await standOn({ answers: configuration({ state: 'dark', until: null }) });
    expect(page.plate()?.className).toContain('dark');
    expect(page.plate()?.textContent).toContain('Leave a note');
    page.streams[0]?.onmessage?.({
      data: JSON.stringify({ lamp: { state: 'lit', until: null }, now: Date.now() }),
    });
    expect(page.plate()?.textContent).toContain('Answering now');
  });

  it('lights a lamp again whose time has come while the page stood open', async () => {
    const page = await standOn({
      answers: configuration({ state: 'back-soon', until: Date.now() + 150 }),
    });
    expect(page.plate()?.textContent).toContain('Back at');
    await passing(350);
    expect(page.plate()?.textContent).toContain('Answering now');
  });

  it('gets the panel ready behind the plate for whoever has talked before', async () => {
    const page = await standOn({ answers: configuration(), talked: true });
    expect(page.frame()?.hidden).toBe(true);
    expect(page.streams).toHaveLength(0);
  });

  it('believes only its own frame', async () => {
    const page = await standOn({ answers: configuration() });
    page.plate()?.click();
    const { MessageEvent } = page.window;
    const tell = (origin: string, source: Window | null | undefined) =>
      page.window.dispatchEvent(
        new MessageEvent('message', { data: { porch: 'close' }, origin, source: source as never }),
      );
    tell('https://evil.example', page.frame()?.contentWindow);
    tell('https://porch.example', page.window as never);
    expect(page.frame()?.hidden).toBe(false);
    tell('https://porch.example', page.frame()?.contentWindow);
    expect(page.frame()?.hidden).toBe(true);
  });

  it('asks in the page\u2019s own language', async () => {
    const page = await standOn({ answers: configuration(), language: 'de-AT' });
    expect(page.asked[0]).toContain('?language=de');
  });

  it('shows nothing on a page that its rules leave out, and follows an address that changes', async () => {
    const page = await standOn({
      answers: configuration(undefined, (dress) => {
        dress.where.pages = { mode: 'only', these: ['/shop/*'] };
      }),
      path: '/about',
    });
    const isHidden = () => (page.hosts()[0] as HTMLElement).hidden;
    await there(() => page.hosts()[0]);
    expect(isHidden()).toBe(true);
    expect(page.streams).toHaveLength(0);
    page.window.history.pushState(null, '', '/shop/ferns');
    await there(() => !isHidden());
    page.window.history.pushState(null, '', '/about');
    await there(isHidden);
  });

  it('peeks once a visit, in one line that can be hidden', async () => {
    const answers = configuration(undefined, (dress) => {
      dress.where.manners = [{ pattern: '*', manner: 'peek', afterSeconds: 0 }];
    });
    const page = await standOn({ answers });
    const lines = () => page.hosts()[0]?.shadowRoot?.querySelectorAll('.peek') ?? [];
    await there(() => lines().length);
    expect([...lines()].map((line) => line.textContent)).toEqual([
      'Can we help? Write to us here.×',
    ]);
    expect(page.window.sessionStorage).toHaveLength(1);
    page
      .hosts()[0]
      ?.shadowRoot?.querySelector<HTMLElement>('[aria-label="Hide this line"]')
      ?.click();
    expect(lines()).toHaveLength(0);
    page.window.history.pushState(null, '', '/other');
    await passing(1_100);
    expect(lines()).toHaveLength(0);
  });

  it('keeps nothing on the device where consent is asked, though it peeks', async () => {
    const page = await standOn({
      answers: configuration(undefined, (dress) => {
        dress.where.manners = [{ pattern: '*', manner: 'peek', afterSeconds: 0 }];
        dress.consent.isAsked = true;
      }),
    });
    await there(() => page.hosts()[0]?.shadowRoot?.querySelector('.peek'));
    expect(page.window.sessionStorage).toHaveLength(0);
    expect(page.window.localStorage).toHaveLength(0);
  });

  it('opens by itself where the owner wants it, without taking the focus', async () => {
    const page = await standOn({
      answers: configuration(undefined, (dress) => {
        dress.where.manners = [{ pattern: '/shop', manner: 'open', afterSeconds: 0 }];
      }),
    });
    expect((await there(page.frame)).hidden).toBe(false);
    expect(page.window.document.activeElement).toBe(page.window.document.body);
  });

  it('opens and closes when the page asks, also before it stands', async () => {
    const page = await standOn({ answers: configuration() });
    await page.window.HelloPorch?.open();
    expect(page.frame()?.hidden).toBe(false);
    await page.window.HelloPorch?.close();
    expect(page.frame()?.hidden).toBe(true);
  });
});
