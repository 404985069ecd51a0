import type { DoorConfiguration } from '@porch/contract/visitor';
import type { DoorView } from '@porch/core/dress';
import { type LampSetting, lampAt } from '@porch/core/lamp';
import { fitsPattern, mannerOn, takesIn } from '@porch/core/page-rules';
import type { FromFrame, ToFrame } from '../bridge';
import { lampBody, lampGlass } from '../glyphs';
import { plateCss } from './plate.css';

/** What a page may ask of the door: `window.HelloPorch`. */
export interface HelloPorch {
  open(): unknown;
  close(): unknown;
  /** Says who is signed in on the website, so that they need not be asked. */
  visitorIs(person: { name?: string; email?: string }): unknown;
}

export interface Standing extends HelloPorch {
  remove(): void;
}

const LONGEST_TIMER_MS = 0x7fffffff;
const ADDRESS_LOOK_MS = 1_000;
const states = ['lit', 'back-soon', 'dark'];

const draw = (name: string, attributes: Record<string, string>, ...inside: Element[]): Element => {
  const drawn = document.createElementNS('http://www.w3.org/2000/svg', name);
  for (const key in attributes) drawn.setAttribute(key, attributes[key] ?? '');
  drawn.append(...inside);
  return drawn;
};

const drawLamp = (): Element =>
  draw(
    'svg',
    { viewBox: '0 0 24 24', 'aria-hidden': 'true' },
    draw('path', { d: lampGlass, class: 'glass' }),
    draw('path', { d: lampBody }),
  );

const make = <Name extends 'button' | 'span' | 'div' | 'p' | 'iframe' | 'img'>(
  name: Name,
  className: string,
) => Object.assign(document.createElement(name), { className });

/** Websites may forbid storage; then a page only knows its own visit. */
export const remember = (where: 'localStorage' | 'sessionStorage', key: string, value?: string) => {
  try {
    if (value) window[where].setItem(key, value);
    return window[where].getItem(key);
  } catch {
    return null;
  }
};

const fill = (text: string, gap: string, value: string): string =>
  text.replace(`{${gap}}`, () => value);

/** Draws the plate of a door on this page, where its rules want it; nothing else until it is opened. */
export const stand = (
  origin: string,
  configuration: DoorConfiguration,
  draft?: { view: DoorView; place: 'trial' | 'preview' },
): Standing => {
  const { door, business, texts, look, rules, language, picture, isConsentAsked } = configuration;
  // A configuration that was kept for a moment tells an old time; what comes live corrects it.
  let offset = configuration.now - Date.now();
  let { lamp } = configuration;
  const talkedKey = `hello-porch:${door}`;
  const isPreview = draft?.place === 'preview';

  let frame: HTMLIFrameElement | null = null;
  let person: ToFrame | null = null;
  let isReady = false;
  let isOpen = false;
  let hasShownItself = false;
  let stream: EventSource | null = null;
  let timer = 0;
  let mannerTimer = 0;

  const host = document.createElement('hello-porch');
  host.lang = language;
  host.dir = configuration.direction;
  const root = host.attachShadow({ mode: 'open' });
  const sheet = new CSSStyleSheet();
  const [day, night] = configuration.colours;
  sheet.replaceSync(
    `${plateCss}:host{--s:${look.scale};--e:${look.sidePx}px;--b:${look.bottomPx}px;${day}}@media(prefers-color-scheme:dark){:host{${night}}}`,
  );
  root.adoptedStyleSheets = [sheet];
  const place = make('div', `door ${look.plate} ${look.side}`);
  const plate = make('button', 'plate');
  const label = make('span', '');
  const more = make('span', 'more');
  const count = make('span', 'count');
  plate.append(drawLamp(), label, count);
  if (look.face === 'picture' && picture) {
    plate.prepend(
      Object.assign(make('img', picture.shape), { src: origin + picture.url, alt: '' }),
    );
  }
  place.append(plate);
  root.append(place);

  const lampNow = (): LampSetting => lampAt(lamp, Date.now() + offset);
  const inWords = (now: LampSetting, ways: readonly string[]): string => {
    const time = new Date((now.until ?? 0) - offset);
    return fill(
      ways[states.indexOf(now.state)] ?? '',
      'time',
      time.toLocaleTimeString([], { timeStyle: 'short' }),
    );
  };

  const redraw = (): void => {
    const now = lampNow();
    const state = inWords(now, texts.plate);
    plate.className = `plate ${now.state}`;
    label.textContent = business;
    more.textContent = state;
    label.append(more);
    const unread = Number(count.textContent);
    plate.setAttribute(
      'aria-label',
      fill(texts.open, 'state', state) +
        (unread ? `. ${fill(texts.unread, 'count', String(unread))}` : ''),
    );
    plate.setAttribute('aria-expanded', String(isOpen));
    clearTimeout(timer);
    if (now.until) {
      const leftMs = now.until - Date.now() - offset + 50;
      timer = window.setTimeout(redraw, Math.min(leftMs, LONGEST_TIMER_MS));
    }
  };

  const setLamp = (told: { lamp: LampSetting; now: number }): void => {
    lamp = told.lamp;
    offset = told.now - Date.now();
    redraw();
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
    frame = make('iframe', '');
    frame.hidden = true;
    frame.title = texts.frame;
    frame.src = `${origin}/door/${door}/panel?language=${language}${draft ? `&draft=${draft.place}` : ''}`;
    root.append(frame);
    stream?.close();
  };

  const unpeek = (): void => root.querySelector('.peek')?.remove();

  const show = (open: boolean, movesFocus = true): void => {
    if (open) load();
    unpeek();
    isOpen = open;
    if (frame) frame.hidden = !open;
    place.hidden = open;
    tell({ porch: open ? 'shown' : 'hidden' });
    if (movesFocus) (open ? frame : plate)?.focus();
    redraw();
  };

  const peek = (): void => {
    const line = make('p', 'peek');
    line.setAttribute('role', 'status');
    const read = make('button', '');
    read.textContent = inWords(lampNow(), texts.peek);
    read.onclick = () => show(true);
    const hide = make('button', '');
    hide.textContent = '×';
    hide.setAttribute('aria-label', texts.hide);
    hide.onclick = unpeek;
    line.append(read, hide);
    place.prepend(line);
  };

  /** At most once a visit. Where consent is asked nothing is kept: the page on which a visit begins has it. */
  const mayShowItself = (): boolean => {
    if (hasShownItself || isOpen) return false;
    const isWithinVisit = isConsentAsked
      ? document.referrer.startsWith(location.origin)
      : remember('sessionStorage', talkedKey);
    return isPreview || !isWithinVisit;
  };

  const showItself = (manner: 'peek' | 'open'): void => {
    if (!mayShowItself() || host.hidden) return;
    hasShownItself = true;
    if (!isConsentAsked && !isPreview) remember('sessionStorage', talkedKey, 'seen');
    if (manner === 'peek') peek();
    else show(true, false);
  };

  const behave = (): void => {
    clearTimeout(mannerTimer);
    const rule = mannerOn(rules.manners, location.pathname);
    if (!rule || rule.manner === 'quiet') return;
    const { manner, afterSeconds } = rule;
    mannerTimer = window.setTimeout(() => showItself(manner), afterSeconds * 1_000);
  };

  const isWanted = (): boolean =>
    takesIn(rules.pages, (pattern) => fitsPattern(pattern, location.pathname)) &&
    takesIn(rules.zones, (zone) => zone === Intl.DateTimeFormat().resolvedOptions().timeZone) &&
    (rules.onSmallScreens || !matchMedia('(max-width:520px)').matches);

  let path = '';
  /** Sites that change their address without loading say nothing when they do. */
  const lookAtAddress = (): void => {
    tellPage();
    if (path === location.pathname) return;
    path = location.pathname;
    host.hidden = !isPreview && !isWanted();
    // Inline and important: no style of the page can reach the door.
    host.style.cssText = `all:initial!important;position:fixed!important;z-index:2147483000!important;${host.hidden ? 'display:none!important' : ''}`;
    if (!host.hidden) behave();
  };

  const hear = (message: FromFrame): void => {
    switch (message.porch) {
      case 'ready':
        isReady = true;
        toldUrl = '';
        if (draft) tell({ porch: 'view', view: draft.view });
        if (isPreview) tell({ porch: 'lamp', lamp, now: Date.now() + offset });
        tellPage();
        if (person) tell(person);
        tell({ porch: isOpen ? 'shown' : 'hidden' });
        break;
      case 'close':
        show(false);
        break;
      case 'talked':
        remember('localStorage', talkedKey, 'talked');
        break;
      case 'unread':
        count.textContent = message.count > 0 ? String(message.count) : '';
        redraw();
        break;
      case 'lamp':
        if (!isPreview) setLamp(message);
        break;
    }
  };

  const listen = (event: MessageEvent): void => {
    if (event.origin !== origin || event.source !== frame?.contentWindow) return;
    if (event.data && typeof event.data.porch === 'string') hear(event.data);
  };

  const follow = (): void => {
    if (isPreview || host.hidden) return;
    // Whoever has talked before gets their panel ready behind the plate, so that an answer shows.
    if (remember('localStorage', talkedKey)) {
      load();
      return;
    }
    stream = new EventSource(
      `${origin}/door/${door}/lamp?page=${encodeURIComponent(location.pathname)}`,
    );
    stream.onmessage = (event) => setLamp(JSON.parse(event.data));
  };

  addEventListener('message', listen);
  plate.onclick = () => show(true);
  redraw();
  lookAtAddress();
  const addressTimer = setInterval(lookAtAddress, ADDRESS_LOOK_MS);
  document.documentElement.append(host);
  // In the browser's top layer nothing that the page does to its own elements moves or covers it.
  host.popover = 'manual';
  host.showPopover?.();
  (window.requestIdleCallback ?? setTimeout)(follow);

  return {
    open: () => show(true),
    close: () => show(false),
    visitorIs: ({ name = '', email = '' }) => {
      person = { porch: 'person', name: String(name), email: String(email) };
      tell(person);
    },
    remove: () => {
      removeEventListener('message', listen);
      clearInterval(addressTimer);
      clearTimeout(mannerTimer);
      clearTimeout(timer);
      host.remove();
    },
  };
};
