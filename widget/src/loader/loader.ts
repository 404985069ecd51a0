import type { DoorConfiguration } from '@porch/contract/visitor';
import type { LampSetting } from '@porch/core/lamp';
import { lampAt } from '@porch/core/lamp';
import type { FromFrame, ToFrame } from '../bridge';
import { lampBody, lampGlass } from '../glyphs';
import { plateWords } from '../wording/plate';
import { plateCss } from './plate.css';

/**
 * What stands on every page of a business's website: it asks once how the door is set, draws the
 * plate, and does nothing else until the plate is opened. Whatever fails, the page never notices.
 */
declare global {
  interface Window {
    HelloPorch?: { open(): void; close(): void };
  }
}

const script = document.currentScript as HTMLScriptElement | null;
const LONGEST_TIMER_MS = 0x7fffffff;
const ADDRESS_LOOK_MS = 1_000;

const svg = (path: string, className: string): SVGPathElement => {
  const shape = document.createElementNS('http://www.w3.org/2000/svg', 'path');
  shape.setAttribute('d', path);
  shape.setAttribute('class', className);
  return shape;
};

const drawLamp = (): SVGSVGElement => {
  const lamp = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  lamp.setAttribute('viewBox', '0 0 24 24');
  lamp.setAttribute('aria-hidden', 'true');
  lamp.append(svg(lampGlass, 'glass'), svg(lampBody, 'body'));
  return lamp;
};

const remember = (key: string, value?: string): string | null => {
  // Websites may forbid storage; then a page only knows its own visit.
  try {
    if (value) localStorage.setItem(key, value);
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};

const stand = (origin: string, configuration: DoorConfiguration): void => {
  const { door, business } = configuration;
  // A configuration that was kept for a moment tells an old time; what comes live corrects it.
  let offset = configuration.now - Date.now();
  const talkedKey = `hello-porch:${door}`;
  let { lamp } = configuration;

  const setLamp = (told: { lamp: LampSetting; now: number }): void => {
    lamp = told.lamp;
    offset = told.now - Date.now();
    draw();
  };

  let frame: HTMLIFrameElement | null = null;
  let isReady = false;
  let isOpen = false;
  let stream: EventSource | null = null;
  let timer = 0;

  const host = document.createElement('hello-porch');
  const root = host.attachShadow({ mode: 'open' });
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(plateCss);
  root.adoptedStyleSheets = [sheet];
  const plate = document.createElement('button');
  plate.type = 'button';
  const label = document.createElement('span');
  const more = document.createElement('span');
  more.className = 'more';
  const count = document.createElement('span');
  count.className = 'count';
  plate.append(drawLamp(), label, count);
  root.append(plate);

  const stateWords = (now: LampSetting): string => {
    if (now.state === 'lit') return plateWords.lit;
    if (now.state === 'dark') return plateWords.dark;
    const time = new Date(now.until - offset);
    return plateWords.backSoon(time.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' }));
  };

  const draw = (): void => {
    const now = lampAt(lamp, Date.now() + offset);
    const words = stateWords(now);
    plate.className = `plate ${now.state}`;
    label.textContent = business;
    more.textContent = words;
    label.append(more);
    const unread = Number(count.textContent);
    plate.setAttribute(
      'aria-label',
      plateWords.open(business, words) + (unread ? `. ${plateWords.unread(unread)}` : ''),
    );
    plate.setAttribute('aria-expanded', String(isOpen));
    clearTimeout(timer);
    if (now.until) {
      const leftMs = now.until - Date.now() - offset + 50;
      timer = window.setTimeout(draw, Math.min(leftMs, LONGEST_TIMER_MS));
    }
  };

  const tell = (message: ToFrame): void => {
    if (isReady) frame?.contentWindow?.postMessage(message, origin);
  };

  let toldUrl = '';
  const tellPage = (): void => {
    if (toldUrl === location.href || !isReady) return;
    toldUrl = location.href;
    tell({ porch: 'page', url: location.href, title: document.title });
  };

  const load = (): void => {
    if (frame) return;
    frame = document.createElement('iframe');
    frame.hidden = true;
    frame.title = plateWords.frame(business);
    frame.allow = 'clipboard-write';
    frame.src = `${origin}/door/${door}/panel`;
    root.append(frame);
    stream?.close();
    // Sites that change their address without loading say nothing when they do.
    setInterval(tellPage, ADDRESS_LOOK_MS);
  };

  const show = (open: boolean): void => {
    if (open) load();
    isOpen = open;
    if (frame) frame.hidden = !open;
    plate.hidden = open;
    plate.style.display = open ? 'none' : '';
    tell({ porch: open ? 'shown' : 'hidden' });
    if (open) frame?.focus();
    else plate.focus();
    draw();
  };

  const hear = (message: FromFrame): void => {
    switch (message.porch) {
      case 'ready':
        isReady = true;
        tellPage();
        tell({ porch: isOpen ? 'shown' : 'hidden' });
        break;
      case 'close':
        show(false);
        break;
      case 'talked':
        remember(talkedKey, 'talked');
        break;
      case 'unread':
        count.textContent = message.count > 0 ? String(message.count) : '';
        draw();
        break;
      case 'lamp':
        setLamp(message);
        break;
    }
  };

  addEventListener('message', (event) => {
    if (event.origin !== origin || event.source !== frame?.contentWindow) return;
    if (event.data && typeof event.data.porch === 'string') hear(event.data);
  });

  const follow = (): void => {
    // Whoever has talked before gets their panel ready behind the plate, so that an answer shows.
    if (remember(talkedKey)) {
      load();
      return;
    }
    stream = new EventSource(`${origin}/door/${door}/lamp`);
    stream.onmessage = (event) => setLamp(JSON.parse(event.data));
  };

  plate.addEventListener('click', () => show(true));
  draw();
  document.body.append(host);
  window.HelloPorch = { open: () => show(true), close: () => show(false) };
  (window.requestIdleCallback ?? setTimeout)(follow);
};

const start = async (): Promise<void> => {
  const door = script?.dataset.door;
  if (!script || !door || window.HelloPorch) return;
  window.HelloPorch = { open() {}, close() {} };
  const { origin } = new URL(script.src);
  try {
    const { default: configuration } = await import(`${origin}/door/${door}/configuration.js`);
    stand(origin, configuration);
  } catch {
    // Our server is down, or this page is not on the door's list: the page shows no plate.
  }
};

if (document.body) void start();
else addEventListener('DOMContentLoaded', () => void start());
