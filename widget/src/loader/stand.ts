import type { DoorConfiguration } from '@porch/contract/visitor';
import type { DoorView } from '@porch/core/dress';
import { type Light, lampAt } from '@porch/core/lamp';
import { fitsPattern, type MannerRule, mannerOn, takesIn } from '@porch/core/page-rules';
import { lampBody, lampGlass } from '../glyphs';
import { frameIn } from './frame';
import plateCss from './plate.css';
import { remember } from './remember';
import { talkedKey } from './talked-key';

/** Who is signed in on the website, as it says. */
export interface Person {
  name?: string;
  email?: string;
  /** The same and more as JSON, with its signature by the door's key: then it is proved. */
  signed?: string;
  signature?: string;
}

/** What a page may ask of the door: `window.HelloPorch`. */
export interface HelloPorch {
  open(): unknown;
  close(): unknown;
  /** Says who is signed in on the website, so that they need not be asked. */
  visitorIs(person: Person): unknown;
}

export interface Standing extends HelloPorch {
  remove(): void;
}

/** A draft for the owner's own eyes: on their website, or in the dressing room. */
export interface Draft {
  view: DoorView;
  place: 'trial' | 'preview';
}

/** The plate as it stands, for whoever comes in behind it. */
export interface Stood {
  person: Person | null;
  isOpen: boolean;
  /** They were greeted in this visit: whoever was need not be told that one can write. */
  wasGreeted?: boolean;
  unread: number;
  lamp(): { lamp: Light; now: number };
  setLamp(told: { lamp: Light; now: number }): void;
  /** How the door behaves by itself on the page as it is now. */
  rule(): MannerRule | null;
  /** One of three texts, for lit, back soon and dark. */
  inWords(ways: readonly string[]): string;
  redraw(): void;
  /** Nobody need follow the lamp any more. */
  stop(): void;
  /** The panel's frame, made if need be. A first part that a browser has kept from before 0.10 has none to give. */
  frame?(): HTMLIFrameElement;
}

/** What is behind the plate: the panel in its frame, and how the door behaves by itself. */
export interface Inside {
  load(): void;
  show(isOpen: boolean): void;
  introduce(): void;
  /** The page may be another. */
  went(isOtherPath: boolean): void;
  remove(): void;
}

/** The second part, from wherever it comes. */
export interface More {
  /** `root` holds `.door` with the `.plate` in it; its host is hidden where the door does not show. */
  enter(
    stood: Stood,
    root: ShadowRoot,
    origin: string,
    configuration: DoorConfiguration,
    draft?: Draft,
  ): Inside;
}

const ADDRESS_LOOK_MS = 1_000;
const states = ['lit', 'back-soon', 'dark'];

const draw = (name: string, attribute: string, value: string, ...inside: Element[]): Element => {
  const drawn = document.createElementNS('http://www.w3.org/2000/svg', name);
  drawn.setAttribute(attribute, value);
  drawn.append(...inside);
  return drawn;
};

const make = <Name extends 'button' | 'span' | 'div' | 'img'>(name: Name, className: string) =>
  Object.assign(document.createElement(name), { className });

/** Draws the plate of a door on this page, where its rules want it; nothing else until somebody comes near. */
export const stand = (
  origin: string,
  configuration: DoorConfiguration,
  loadMore: () => Promise<More>,
  draft?: Draft,
): Standing => {
  const { door, business, texts, locale, look, rules, picture } = configuration;
  // A configuration that was kept for a moment tells an old time; what comes live corrects it.
  let offset = configuration.now - Date.now();
  let { lamp } = configuration;
  const isPreview = draft?.place === 'preview';

  let inside: Inside | null = null;
  let entering: Promise<Inside> | null = null;
  let stream: EventSource | null = null;
  let isFollowing = true;
  let timer = 0;
  let frame: HTMLIFrameElement | null = null;

  const host = document.createElement('hello-porch');
  host.lang = configuration.language;
  host.dir = configuration.direction;
  const root = host.attachShadow({ mode: 'open' });
  const sheet = new CSSStyleSheet();
  const [day, night] = configuration.colours;
  sheet.replaceSync(
    `${configuration.shape}${plateCss}:host{--s:${look.scale};--e:${look.sidePx}px;--b:${look.bottomPx}px;--f:${look.font};${day}}@media(prefers-color-scheme:dark){:host{${night}}}`,
  );
  root.adoptedStyleSheets = [sheet];
  const place = make('div', `door ${look.plate} ${look.side} on-${look.onPhones}`);
  const plate = make('button', '');
  const label = make('span', 'words');
  const name = make('span', 'name');
  const more = make('span', 'more');
  const count = make('span', 'count');
  label.append(name, more);
  const glass = draw('path', 'd', lampGlass);
  glass.setAttribute('class', 'glass');
  const lampDrawn = draw('svg', 'viewBox', '0 0 24 24', glass, draw('path', 'd', lampBody));
  lampDrawn.setAttribute('aria-hidden', 'true');
  plate.append(lampDrawn, label, count);
  if (look.face === 'picture' && picture) {
    plate.prepend(
      Object.assign(make('img', picture.shape), { src: origin + picture.url, alt: '' }),
    );
  }
  place.append(plate);
  root.append(place);

  const stood: Stood & { frame(): HTMLIFrameElement } = {
    person: null,
    isOpen: false,
    unread: 0,
    lamp: () => ({ lamp, now: Date.now() + offset }),
    setLamp: (told) => {
      lamp = told.lamp;
      offset = told.now - Date.now();
      stood.redraw();
    },
    inWords: (ways) => {
      const now = lampAt(lamp, Date.now() + offset);
      const said = ways[states.indexOf(now.state)] ?? '';
      const time = () =>
        new Date((now.until ?? 0) - offset).toLocaleTimeString(locale, {
          timeStyle: 'short',
        });
      return said.replace('{time}', time);
    },
    redraw: () => {
      const now = lampAt(lamp, Date.now() + offset);
      const state = stood.inWords(texts.plate);
      const unread = `${stood.unread || ''}`;
      plate.className = `plate ${now.state}`;
      name.textContent = business;
      more.textContent = state;
      count.textContent = unread;
      // What is seen comes first and as it is seen: whoever says what they read must reach it (WCAG 2.5.3).
      const seen = `${business} ${state} ${unread}`.trim();
      const told = unread && `. ${texts.unread.replace('{count}', unread)}`;
      plate.setAttribute('aria-label', `${seen}. ${texts.open}${told}`);
      plate.setAttribute('aria-expanded', `${stood.isOpen}`);
      clearTimeout(timer);
      if (now.until) {
        // A timer cannot wait longer than some 24 days; then it looks again.
        const left = now.until - Date.now() - offset + 50;
        timer = window.setTimeout(stood.redraw, Math.min(left, 2e9));
      }
    },
    rule: () => mannerOn(rules.manners, location.pathname),
    stop: () => {
      isFollowing = false;
      stream?.close();
    },
    frame: () => {
      frame ??= frameIn(root, origin, configuration, draft?.place);
      return frame;
    },
  };

  /** Brings in what is behind the plate; what did not come may come the next time. */
  const enter = (): Promise<Inside> => {
    entering ??= loadMore().then(
      (part) => {
        inside = part.enter(stood, root, origin, configuration, draft);
        return inside;
      },
      (error) => {
        entering = null;
        throw error;
      },
    );
    return entering;
  };
  /** The same, where nobody waits for it. */
  const prepare = (): void => {
    enter().catch(() => {});
  };
  const open = () => {
    stood.frame();
    return enter().then((part) => part.show(true));
  };

  const isWanted = (): boolean =>
    takesIn(rules.pages, (pattern) => fitsPattern(pattern, location.pathname)) &&
    takesIn(rules.zones, (zone) => zone === Intl.DateTimeFormat().resolvedOptions().timeZone) &&
    (rules.onSmallScreens || !matchMedia('(max-width:520px)').matches);

  let path = '';
  /** Sites that change their address without loading say nothing when they do. */
  const lookAtAddress = (): void => {
    const isOther = path !== location.pathname;
    if (isOther) {
      path = location.pathname;
      host.hidden = !isPreview && !isWanted();
      // Inline and important: no style of the page can reach the door.
      host.style.cssText = `all:initial!important;position:fixed!important;z-index:999999999!important;${host.hidden ? 'display:none!important' : ''}`;
    }
    inside?.went(isOther);
  };

  const follow = (): void => {
    // Whoever was quicker than this has the panel open, which is told of the lamp itself.
    if (!isFollowing || isPreview || host.hidden) return;
    // Whoever has talked before gets their panel ready behind the plate, so that an answer shows.
    if (remember('localStorage', talkedKey(door))) {
      enter().then(
        (part) => part.load(),
        () => {},
      );
      return;
    }
    if (configuration.acts) prepare();
    stream = new EventSource(
      `${origin}/door/${door}/lamp?page=${encodeURIComponent(location.pathname)}`,
    );
    stream.onmessage = (event) => stood.setLamp(JSON.parse(event.data));
  };

  plate.onclick = () => void open().catch(() => {});
  // A finger or a pointer that comes near: what is behind the plate is there when it is pressed.
  plate.onpointerenter = plate.onfocus = prepare;
  // It is pressed: the panel does not wait for the finger to leave, nor for what shows it.
  plate.onpointerdown = stood.frame;
  stood.redraw();
  lookAtAddress();
  const addressTimer = setInterval(lookAtAddress, ADDRESS_LOOK_MS);
  document.documentElement.append(host);
  // In the browser's top layer nothing that the page does to its own elements moves or covers it.
  host.popover = 'manual';
  host.showPopover?.();
  // A page that never rests hears of the light all the same; to `setTimeout` it says: at once.
  (window.requestIdleCallback ?? setTimeout)(follow, { timeout: 2_000 } as IdleRequestOptions &
    number);

  return {
    open,
    close: () => inside?.show(false),
    visitorIs: (person) => {
      stood.person = person;
      inside?.introduce();
    },
    remove: () => {
      clearInterval(addressTimer);
      clearTimeout(timer);
      inside?.remove();
      host.remove();
    },
  };
};
