import type { DoorConfiguration } from '@porch/contract/visitor';
import { remember } from './remember';
import type { Stood } from './stand';
import { talkedKey } from './talked-key';

const button = (text: string, done: () => void): HTMLButtonElement =>
  Object.assign(document.createElement('button'), { textContent: text, onclick: done });

/** Peeking and opening by itself: at most once a visit. */
export const createManners = (
  door: {
    stood: Stood;
    host: HTMLElement;
    place: HTMLElement;
    plate: HTMLElement;
    configuration: DoorConfiguration;
    isPreview: boolean;
  },
  open: (movesFocus: boolean) => void,
) => {
  const { stood, host, place, plate, configuration, isPreview } = door;
  const { texts, isConsentAsked } = configuration;
  const seenKey = talkedKey(configuration.door);
  let hasShownItself = false;
  let timer = 0;

  const unpeek = (): void => place.querySelector('.peek')?.remove();

  const peek = (): void => {
    const line = Object.assign(document.createElement('p'), { className: 'peek' });
    line.setAttribute('role', 'status');
    const hide = button('×', unpeek);
    hide.setAttribute('aria-label', texts.hide);
    line.append(
      button(stood.inWords(texts.peek), () => open(true)),
      hide,
    );
    place.prepend(line);
  };

  /** The host may be hidden, and the plate by itself while nobody is in. */
  const isPlateSeen = (): boolean => !host.hidden && getComputedStyle(plate).display !== 'none';

  /** Where consent is asked nothing is kept: the page on which a visit begins has it. */
  const mayShowItself = (): boolean => {
    if (hasShownItself || stood.wasGreeted || stood.isOpen || !isPlateSeen()) return false;
    const isWithinVisit = isConsentAsked
      ? document.referrer.startsWith(location.origin)
      : remember('sessionStorage', seenKey);
    return isPreview || !isWithinVisit;
  };

  const showItself = (manner: 'peek' | 'open'): void => {
    if (!mayShowItself()) return;
    hasShownItself = true;
    if (!isConsentAsked && !isPreview) remember('sessionStorage', seenKey, 'seen');
    if (manner === 'peek') peek();
    else open(false);
  };

  return {
    unpeek,
    /** The page is another: behaves as its rule says. */
    behave: (): void => {
      clearTimeout(timer);
      const rule = host.hidden ? null : stood.rule();
      if (!rule || rule.manner === 'quiet') return;
      const { manner, afterSeconds } = rule;
      timer = window.setTimeout(() => showItself(manner), afterSeconds * 1_000);
    },
    stop: (): void => clearTimeout(timer),
  };
};
