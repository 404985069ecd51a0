/** @jest-environment node */

import { type Dress, plainDress, plateViewOf, rulesOf, viewOf } from '@porch/core/dress';
import { type Greeting, greetingsIn, newGreeting } from '@porch/core/greetings';
import { build } from 'esbuild';
import { JSDOM } from 'jsdom';

/** Style sheets as they stand: a test reads no pixels. */
const asText = { '.css': 'text' } as const;

const built = async (entry: string, more: object = {}): Promise<string> => {
  const { outputFiles } = await build({
    entryPoints: [entry],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    loader: asText,
    ...more,
  });
  return outputFiles[0]?.text ?? '';
};

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
  isSmall?: boolean;
  isSecondPartGone?: boolean;
  /** The page that led here. */
  referrer?: string;
  /** What the browser keeps of a visit before. */
  visit?: object;
  /** What waits for the page to have nothing to do; without it that is at once. */
  idle?: (() => void)[];
}) => {
  // The page's own import cannot be played; a function of the test stands in for it.
  const banner = { js: 'var ask = window.ask;' };
  const loader = await built('widget/src/loader/loader.ts', { banner });
  const code = loader.replace(/import\(/g, 'ask(');
  const second = await built('widget/src/loader/more.ts', { globalName: 'secondPart' });
  const dom = new JSDOM(
    `<!doctype html><html lang="${options.language ?? ''}"><body><p>A shop</p></body></html>`,
    {
      url: `https://quillfern.example${options.path ?? '/shop'}`,
      runScripts: 'outside-only',
      ...(options.referrer ? { referrer: options.referrer } : {}),
      pretendToBeVisual: true,
    },
  );
  opened.push(dom);
  const { window } = dom;
  const asked: string[] = [];
  const failures: string[] = [];
  window.addEventListener('error', (event) => failures.push(event.message));
  if (options.talked) window.localStorage.setItem('hello-porch:door-1', 'talked');
  if (options.visit) {
    window.localStorage.setItem('hello-porch:door-1:visit', JSON.stringify(options.visit));
  }
  const reported: string[] = [];
  const streams: {
    url: string;
    close: jest.Mock;
    onmessage?: (event: { data: string }) => void;
  }[] = [];
  Object.assign(window, {
    ask: async (url: string) => {
      asked.push(url);
      if (options.answers === null) throw new TypeError('no server');
      if (url === 'https://porch.example/widget/more.js') {
        if (options.isSecondPartGone) throw new TypeError('no second part');
        return window.eval(`${second}; secondPart`);
      }
      return { default: JSON.parse(options.answers) };
    },
    fetch: async (url: string) => {
      reported.push(url);
    },
    CSSStyleSheet: class {
      replaceSync(): void {}
    },
    ResizeObserver: class {
      observe(): void {}
    },
    EventSource: class {
      close = jest.fn();
      constructor(public url: string) {
        streams.push(this as never);
      }
    },
    requestIdleCallback: (work: () => void) => {
      if (options.idle) options.idle.push(work);
      else work();
    },
    matchMedia: () => ({ matches: options.isSmall ?? false }),
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
  /** The frame, once it is shown. */
  const shown = () => (frame()?.hidden === false ? frame() : null);
  const greeting = () => hosts()[0]?.shadowRoot?.querySelector('.greeting') ?? null;
  const plates = () => hosts()[0]?.shadowRoot?.querySelector<HTMLElement>('.plate') ?? null;
  return {
    window,
    paste,
    asked,
    failures,
    streams,
    reported,
    hosts,
    plate,
    plates,
    frame,
    shown,
    greeting,
  };
};

const business = { name: 'Quillfern', address: '', picture: null, people: [], ways: [] };

const configuration = (
  lamp: object = { state: 'lit', until: null },
  change: (dress: Dress) => void = () => {},
): string => {
  const dress = plainDress();
  change(dress);
  const rules = rulesOf(dress);
  const greetings = greetingsIn(dress.greetings, 'en', () => ({ name: 'Tobias', face: null }));
  return JSON.stringify({
    door: 'door-1',
    more: '/widget/more.js',
    lamp,
    now: Date.now(),
    ...plateViewOf(viewOf(dress, business, 'en')),
    rules,
    acts: rules.manners.length > 0 || greetings.length > 0,
    greetings,
  });
};

describe('the loader on somebody\u2019s page', () => {
  it('asks once how the door is set and draws a plate, and nothing more', async () => {
    const page = await standOn({ answers: configuration() });
    expect(page.asked).toEqual(['https://porch.example/door/door-1/configuration.js?language=en']);
    expect(page.plate()?.getAttribute('aria-label')).toBe('Quillfern Answering now. Write to us');
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
    await there(page.shown);
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

  it('draws nothing anew meanwhile where the light is dark for longer than a timer can wait', async () => {
    const until = Date.now() + 40 * 24 * 3_600_000;
    const page = await standOn({ answers: configuration({ state: 'dark', until }) });
    const plate = page.plate();
    if (!plate) throw new Error('there is no plate');
    let drawn = 0;
    new page.window.MutationObserver(() => {
      drawn += 1;
    }).observe(plate, { attributes: true });
    await passing(100);
    expect(drawn).toBe(0);
  });

  it('gets the panel ready behind the plate for whoever has talked before', async () => {
    const page = await standOn({ answers: configuration(), talked: true });
    expect((await there(page.frame)).hidden).toBe(true);
    expect(page.streams).toHaveLength(0);
  });

  it('believes only its own frame', async () => {
    const page = await standOn({ answers: configuration() });
    page.plate()?.click();
    await there(page.shown);
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

  it('gives the keyboard back to the plate when it is closed, but fetches nobody back who has gone on', async () => {
    const page = await standOn({ answers: configuration() });
    const { MessageEvent, document } = page.window;
    const close = async () => {
      const { contentWindow: source } = await there(page.shown);
      const data = { porch: 'close' };
      const origin = 'https://porch.example';
      page.window.dispatchEvent(
        new MessageEvent('message', { data, origin, source: source as never }),
      );
    };
    page.plate()?.click();
    await close();
    expect(page.hosts()[0]?.shadowRoot?.activeElement).toBe(page.plate());

    page.plate()?.click();
    await there(() => page.frame()?.hidden === false);
    const search = document.createElement('input');
    document.body.append(search);
    search.focus();
    await close();
    expect(page.frame()?.hidden).toBe(true);
    expect(document.activeElement).toBe(search);
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

  it('follows the lamp no more where somebody opened the panel before the page was idle', async () => {
    const idle: (() => void)[] = [];
    const page = await standOn({ answers: configuration(), idle });
    page.plate()?.click();
    await there(page.shown);
    for (const work of idle) work();
    expect(idle).toHaveLength(1);
    expect(page.streams).toHaveLength(0);
  });

  it('fetches its second part for nobody who does not come near', async () => {
    const page = await standOn({ answers: configuration() });
    expect(page.asked).toHaveLength(1);
    page.plate()?.dispatchEvent(new page.window.Event('pointerenter'));
    await there(() => page.asked[1]);
    expect(page.asked[1]).toBe('https://porch.example/widget/more.js');
    page.plate()?.click();
    await there(page.frame);
    expect(page.asked).toHaveLength(2);
  });

  it('begins to load the panel when it is touched, hidden until its second part shows it', async () => {
    const page = await standOn({ answers: configuration() });
    page.plate()?.dispatchEvent(new page.window.Event('pointerdown'));
    expect(page.frame()?.getAttribute('src')).toBe(
      'https://porch.example/door/door-1/panel?language=en',
    );
    expect([page.frame()?.hidden, page.asked.length]).toEqual([true, 1]);
    const frame = page.frame();
    const heard: unknown[] = [];
    const contentWindow = { postMessage: (told: unknown) => heard.push(told) };
    Object.defineProperty(frame, 'contentWindow', { value: contentWindow });
    page.plate()?.click();
    expect(await there(page.shown)).toBe(frame);
    // What it said before anybody listened is asked for once more.
    expect(heard).toEqual([{ porch: 'ready' }]);
  });

  it('goes on with a first part that a browser has kept from before, which has no frame to give', async () => {
    const page = await standOn({ answers: configuration() });
    const part = await page.window.ask('https://porch.example/widget/more.js');
    const host = page.window.document.createElement('div');
    const root = host.attachShadow({ mode: 'open' });
    Object.assign(root, { adoptedStyleSheets: [] });
    root.innerHTML = '<div class="door"><button class="plate"></button></div>';
    page.window.document.body.append(host);
    const kept = { isOpen: false, stop: jest.fn(), redraw: jest.fn(), rule: () => null };
    part.enter(kept, root, 'https://porch.example', JSON.parse(configuration())).show(true);
    expect(root.querySelectorAll('iframe')).toHaveLength(1);
    expect(root.querySelector('iframe')?.hidden).toBe(false);
  });

  it('still stands, and can be pressed again, where its second part did not come', async () => {
    const page = await standOn({ answers: configuration(), isSecondPartGone: true });
    page.plate()?.click();
    await there(() => page.asked[1]);
    await passing(20);
    page.plate()?.click();
    await there(() => page.asked[2]);
    expect(page.failures).toEqual([]);
    expect(page.plate()?.textContent).toContain('Answering now');
  });

  it('has a name in which everything that is read on it stands as it is read (WCAG 2.5.3)', async () => {
    const page = await standOn({ answers: configuration(), talked: true });
    const frame = await there(page.frame);
    const { MessageEvent } = page.window;
    page.window.dispatchEvent(
      new MessageEvent('message', {
        data: { porch: 'unread', count: 2 },
        origin: 'https://porch.example',
        source: frame.contentWindow as never,
      }),
    );
    const seen = [...(page.plate()?.querySelectorAll('span:not(.words)') ?? [])]
      .map((one) => one.textContent)
      .join(' ');
    expect(seen).toBe('Quillfern Answering now 2');
    expect(page.plate()?.getAttribute('aria-label')).toBe(`${seen}. Write to us. New messages: 2`);
  });

  describe('when an answer comes while it is closed', () => {
    const answered = async (onAnswer: Dress['onAnswer'], isSmall = false) => {
      const answers = configuration(undefined, (dress) => {
        dress.onAnswer = onAnswer;
      });
      const page = await standOn({ answers, talked: true, isSmall });
      const frame = await there(page.frame);
      const { MessageEvent } = page.window;
      const tell = (data: object) =>
        page.window.dispatchEvent(
          new MessageEvent('message', {
            data,
            origin: 'https://porch.example',
            source: frame.contentWindow as never,
          }),
        );
      tell({ porch: 'unread', count: 1 });
      return {
        page,
        frame,
        tell,
        isPlateSeen: () => !page.plate()?.closest<HTMLElement>('.door')?.hidden,
      };
    };

    it('counts it, and nothing else', async () => {
      const { frame, page, isPlateSeen } = await answered('count');
      expect([frame.hidden, isPlateSeen()]).toEqual([true, true]);
      expect(page.plate()?.textContent).toContain('1');
    });

    it('shows its frame small beside the plate, until it is read or hidden', async () => {
      const { frame, tell, isPlateSeen } = await answered('show');
      expect([frame.hidden, frame.className, isPlateSeen()]).toEqual([false, 'glance', true]);
      tell({ porch: 'unread', count: 0 });
      expect([frame.hidden, frame.className]).toEqual([true, '']);
      tell({ porch: 'unread', count: 1 });
      tell({ porch: 'open' });
      expect([frame.hidden, frame.className, isPlateSeen()]).toEqual([false, '', false]);
    });

    it('opens without taking the focus, and on a phone only shows the words', async () => {
      const { frame, page, isPlateSeen } = await answered('open');
      expect([frame.hidden, frame.className, isPlateSeen()]).toEqual([false, '', false]);
      expect(page.window.document.activeElement).toBe(page.window.document.body);
      const onPhone = await answered('open', true);
      expect([onPhone.frame.className, onPhone.isPlateSeen()]).toEqual(['glance', true]);
    });
  });
});

describe('a greeting on somebody\u2019s page', () => {
  const minute = 60_000;
  const greets =
    (change: Partial<Greeting> = {}, isConsentAsked = false) =>
    (dress: Dress): void => {
      dress.consent.isAsked = isConsentAsked;
      dress.greetings = [
        {
          ...newGreeting('greeting-0001', 'en'),
          text: 'Morning. Which fern?',
          afterSeconds: 0,
          ...change,
        },
      ];
    };
  const greeted = (change: Partial<Greeting> = {}, isConsentAsked = false) =>
    configuration(undefined, greets(change, isConsentAsked));
  /** Long enough for whatever would be said at once. */
  const aWhile = () => passing(150);
  const visitOf = (page: Awaited<ReturnType<typeof standOn>>) =>
    JSON.parse(page.window.localStorage.getItem('hello-porch:door-1:visit') ?? 'null');

  it('is said beside the plate by whoever it is of, once a visit, and reported once', async () => {
    const page = await standOn({ answers: greeted() });
    const slip = await there(page.greeting);
    expect(slip.textContent).toBe('TobiasMorning. Which fern?×');
    expect(slip.getAttribute('role')).toBe('status');
    expect(page.reported).toEqual(['https://porch.example/door/door-1/greeted/greeting-0001']);
    expect(visitOf(page)).toMatchObject({ count: 1, greeted: 'greeting-0001' });
    slip.querySelector<HTMLElement>('[aria-label="Hide this line"]')?.click();
    expect(page.greeting()).toBeNull();
    expect(page.hosts()[0]?.shadowRoot?.activeElement).toBe(page.plates());
    page.window.history.pushState(null, '', '/other');
    await passing(1_100);
    expect(page.greeting()).toBeNull();
    expect(page.reported).toHaveLength(1);
  });

  it('opens the panel, and is gone then', async () => {
    const page = await standOn({ answers: greeted() });
    (await there(page.greeting)).querySelector('button')?.click();
    const frame = await there(page.frame);
    expect(frame.hidden).toBe(false);
    expect(page.greeting()).toBeNull();
  });

  it.each([
    ['whoever comes for the second time', { visits: { least: 2, most: null } }, {}, false],
    [
      'the first visit',
      { visits: { least: 1, most: 1 } },
      { visit: { count: 1, at: Date.now() - 31 * minute, from: '', greeted: '' } },
      false,
    ],
    [
      'the second visit, in it',
      { visits: { least: 2, most: 2 } },
      { visit: { count: 1, at: Date.now() - 31 * minute, from: '', greeted: 'greeting-0001' } },
      true,
    ],
    [
      'the first visit, as long as that lasts',
      { visits: { least: 1, most: 1 } },
      { visit: { count: 1, at: Date.now() - 20 * minute, from: '', greeted: '' } },
      true,
    ],
    [
      'who came from a map',
      { cameFrom: ['map.example'] },
      { referrer: 'https://www.map.example/x' },
      true,
    ],
    ['who came from a map, to others', { cameFrom: ['map.example'] }, {}, false],
    [
      'who came from a map, on their next page',
      { cameFrom: ['map.example'] },
      {
        referrer: 'https://quillfern.example/',
        visit: { count: 1, at: Date.now(), from: 'map.example', greeted: '' },
      },
      true,
    ],
    [
      'who came from elsewhere, to whoever comes from a page of the website itself',
      { cameFrom: ['quillfern.example'] },
      { referrer: 'https://quillfern.example/' },
      false,
    ],
    ['this page', { pages: ['/shop'] }, {}, true],
    ['another page', { pages: ['/palms/*'] }, {}, false],
    ['everybody, to whoever has written before', {}, { talked: true }, false],
    [
      'everybody, to whoever was greeted a page before',
      {},
      { visit: { count: 1, at: Date.now(), from: '', greeted: 'greeting-0001' } },
      false,
    ],
    ['everybody, where what is kept is nonsense', {}, { visit: [1, 'x'] }, true],
  ] as [string, Partial<Greeting>, object, boolean][])(
    'that is for %s',
    async (_whom, change, circumstances, isSaid) => {
      const page = await standOn({ answers: greeted(change), ...circumstances });
      if (isSaid) await there(page.greeting);
      else await aWhile();
      expect(page.greeting() !== null).toBe(isSaid);
      expect(page.failures).toEqual([]);
    },
  );

  it('waits for the light, and for the page to be looked at', async () => {
    const dark = configuration({ state: 'dark', until: null }, greets());
    const page = await standOn({ answers: dark });
    let isSeen = false;
    Object.defineProperty(page.window.document, 'visibilityState', {
      get: () => (isSeen ? 'visible' : 'hidden'),
    });
    await aWhile();
    expect(page.greeting()).toBeNull();
    const lamp = { state: 'lit', until: null };
    page.streams[0]?.onmessage?.({ data: JSON.stringify({ lamp, now: Date.now() }) });
    await aWhile();
    expect(page.greeting()).toBeNull();
    expect(page.reported).toEqual([]);
    isSeen = true;
    page.window.document.dispatchEvent(new page.window.Event('visibilitychange'));
    await there(page.greeting);
    expect(page.reported).toHaveLength(1);
  });

  it('keeps nothing where consent is asked: said on the page that they come to, on no further one', async () => {
    const first = await standOn({ answers: greeted({}, true), referrer: 'https://map.example/' });
    await there(first.greeting);
    expect(first.window.localStorage).toHaveLength(0);
    expect(first.window.sessionStorage).toHaveLength(0);
    const referrer = 'https://quillfern.example/';
    const next = await standOn({ answers: greeted({}, true), referrer });
    await aWhile();
    expect(next.greeting()).toBeNull();
  });

  it('comes in the place of a line that peeks, and is followed by none', async () => {
    const answers = configuration(undefined, (dress) => {
      greets({ afterSeconds: 1 })(dress);
      dress.where.manners = [{ pattern: '*', manner: 'peek', afterSeconds: 0 }];
    });
    const page = await standOn({ answers });
    await there(() => page.hosts()[0]?.shadowRoot?.querySelector('.peek'));
    await there(page.greeting);
    expect(page.hosts()[0]?.shadowRoot?.querySelectorAll('.peek')).toHaveLength(1);
  });

  it('that was put away does not come back on this page, whatever the light does, and no line peeks after it', async () => {
    const answers = configuration(undefined, (dress) => {
      greets()(dress);
      dress.where.manners = [{ pattern: '*', manner: 'peek', afterSeconds: 1 }];
    });
    const page = await standOn({ answers });
    // A website may forbid storage: this page knows of itself all the same.
    const forbidden = () => {
      throw new Error('forbidden');
    };
    Object.assign(page.window.Storage.prototype, { getItem: forbidden, setItem: forbidden });
    const slip = await there(page.greeting);
    slip.querySelector<HTMLElement>('[aria-label="Hide this line"]')?.click();
    const lamp = { state: 'lit', until: null };
    page.streams[0]?.onmessage?.({ data: JSON.stringify({ lamp, now: Date.now() }) });
    await passing(1_200);
    expect(page.hosts()[0]?.shadowRoot?.querySelector('.peek')).toBeNull();
    expect(page.reported).toHaveLength(1);
  });

  it('is not said over an open panel', async () => {
    const page = await standOn({ answers: greeted({ afterSeconds: 1 }) });
    page.plate()?.click();
    await there(page.frame);
    await passing(1_200);
    expect(page.greeting()).toBeNull();
    expect(page.reported).toEqual([]);
  });
});
