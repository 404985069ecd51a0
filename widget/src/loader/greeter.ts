import type { DoorConfiguration } from '@porch/contract/visitor';
import { nextGreeting, type SaidGreeting } from '@porch/core/greetings/next';
import { lampAt } from '@porch/core/lamp';
import type { ToFrame } from '../bridge';
import greetingCss from './greeting.css';
import type { Remember } from './remember';
import type { Draft, Stood } from './stand';

/** Somebody's visit on this website, as their own browser keeps it. */
interface Visit {
  /** The first is 1. */
  count: number;
  /** When they were on a page last, by this device's clock. */
  at: number;
  /** The host from which they came; '' where that is not known. */
  from: string;
  /** The greeting that they saw; '' none; '-': one that they put away. */
  greeted: string;
}

/** Whoever comes back after so long is there for another visit. */
const VISIT_ENDS_MS = 30 * 60_000;
const PUT_AWAY = '-';

const visitIn = (kept: string | null): Visit | null => {
  try {
    const { count, at, from, greeted } = JSON.parse(kept ?? '');
    return { count: Number(count) || 1, at: Number(at), from: `${from}`, greeted: `${greeted}` };
  } catch {
    return null;
  }
};

/** The host of the page that led here; '' where it is one of this website's own, or not told. */
const hostBefore = (): string => {
  try {
    const { host } = new URL(document.referrer);
    return host === location.host ? '' : host;
  } catch {
    return '';
  }
};

export interface Greeter {
  /** The page or the light is another. */
  consider(): void;
  /** Tells the panel with what they were greeted. */
  tell(): void;
  stop(): void;
}

/** Greets whoever is on a page before they write, as the owner's rules say, once a visit. */
export const createGreeter = (door: {
  stood: Stood;
  root: ShadowRoot;
  origin: string;
  configuration: DoorConfiguration;
  place: Draft['place'] | undefined;
  show(isOpen: boolean): void;
  /** By what this browser knows whoever has talked at the door. */
  talkedKey: string;
  remember: Remember;
  /** Tells the panel, once that is there. */
  tell(message: ToFrame): void;
}): Greeter => {
  const { stood, root, origin, configuration, place, talkedKey, remember } = door;
  const visitKey = `${talkedKey}:visit`;
  const { greetings, texts, isConsentAsked } = configuration;
  const host = root.host as HTMLElement;
  const beside = root.querySelector('.door') as HTMLElement;
  // A draft is tried as often as its owner likes; and where consent is asked nothing is kept.
  const mayKeep = !place && !isConsentAsked;
  let timer = 0;
  let path = '';
  let since = 0;
  let said: SaidGreeting | null = null;

  const sheet = new CSSStyleSheet();
  sheet.replaceSync(greetingCss);
  root.adoptedStyleSheets.push(sheet);

  const begin = (): Visit => {
    const now = Date.now();
    const before = mayKeep ? visitIn(remember('localStorage', visitKey)) : null;
    if (before && now - before.at < VISIT_ENDS_MS) return { ...before, at: now };
    const isWithin = !place && !mayKeep && document.referrer.startsWith(location.origin);
    const count = (before?.count ?? 0) + 1;
    return { count, at: now, from: hostBefore(), greeted: isWithin ? PUT_AWAY : '' };
  };

  let visit = begin();
  const keep = (greeted: string): void => {
    visit = { ...begin(), greeted };
    stood.wasGreeted ||= greeted !== '';
    if (!mayKeep) return;
    remember('localStorage', visitKey, JSON.stringify(visit));
  };

  /** They are here now; in another tab they may have been greeted meanwhile. */
  const goOn = (): void => keep(mayKeep ? begin().greeted : visit.greeted);

  /** With what they were greeted, unless they have put it away. */
  const tell = (): void => door.tell({ porch: 'greeting', greeting: said });

  const drop = (): void => beside.querySelector('.greeting')?.remove();

  const draw = ({ name, face, text }: SaidGreeting): void => {
    const slip = Object.assign(document.createElement('div'), { className: 'peek greeting' });
    slip.setAttribute('role', 'status');
    const make = (tag: string, words: string) =>
      Object.assign(document.createElement(tag), { textContent: words, dir: 'auto' });
    const answer = Object.assign(document.createElement('button'), {
      onclick: () => door.show(true),
    });
    const words = document.createElement('span');
    words.append(make('b', name), make('span', text));
    answer.append(words);
    answer.setAttribute('aria-label', `${name} ${text} ${texts.open}`);
    if (face) {
      const picture = { src: origin + face, alt: '', className: 'round' };
      answer.prepend(Object.assign(document.createElement('img'), picture));
    }
    const hide = Object.assign(document.createElement('button'), { textContent: '×' });
    hide.setAttribute('aria-label', texts.hide);
    hide.onclick = () => {
      drop();
      said = null;
      keep(PUT_AWAY);
      tell();
      (root.querySelector('.plate') as HTMLElement).focus();
    };
    slip.append(answer, hide);
    beside.querySelector('.peek')?.remove();
    beside.prepend(slip);
  };

  const report = ({ id }: SaidGreeting): void => {
    if (place) return;
    const where = `${origin}/door/${configuration.door}/greeted/${id}`;
    // A page's policy may forbid it: then nobody counts.
    fetch(where, { method: 'POST', mode: 'no-cors', keepalive: true }).catch(() => {});
  };

  const isPlateSeen = (): boolean => {
    const plate = root.querySelector('.plate');
    return !host.hidden && plate !== null && getComputedStyle(plate).display !== 'none';
  };

  const mayGreet = (): boolean =>
    !stood.wasGreeted &&
    !stood.isOpen &&
    isPlateSeen() &&
    (Boolean(place) || !remember('localStorage', talkedKey));

  const greet = (greeting: SaidGreeting): void => {
    goOn();
    if (!mayGreet()) return;
    if (document.visibilityState !== 'visible') {
      document.addEventListener('visibilitychange', consider, { once: true });
      return;
    }
    said = greeting;
    keep(greeting.id);
    draw(greeting);
    report(greeting);
    tell();
  };

  const consider = (): void => {
    clearTimeout(timer);
    if (path !== location.pathname) {
      path = location.pathname;
      since = Date.now();
      goOn();
    }
    if (!mayGreet()) return;
    const { lamp, now } = stood.lamp();
    const found =
      place === 'preview'
        ? greetings[0] && { greeting: greetings[0], inSeconds: 0 }
        : nextGreeting(greetings, {
            path,
            seconds: (Date.now() - since) / 1_000,
            visit: visit.count,
            cameFrom: visit.from,
            isLit: lampAt(lamp, now).state === 'lit',
          });
    if (found) timer = window.setTimeout(() => greet(found.greeting), found.inSeconds * 1_000);
  };

  // What they were greeted with on a page before is what they answer on this one.
  said = greetings.find(({ id }) => id === visit.greeted) ?? null;
  const { setLamp } = stood;
  stood.setLamp = (told) => {
    setLamp(told);
    consider();
  };
  consider();

  return {
    consider,
    tell,
    stop: () => {
      clearTimeout(timer);
      document.removeEventListener('visibilitychange', consider);
    },
  };
};
