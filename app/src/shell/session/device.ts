import type { DeviceKind } from '@porch/contract/people';

const PHONE_WIDEST = 600;

/** Whether this is a phone: something narrow that is held in a hand. */
export const deviceKind = (): DeviceKind =>
  Math.min(window.screen.width, window.innerWidth) <= PHONE_WIDEST ? 'phone' : 'computer';

let taken = '';

/**
 * The secret of a link, which stands in its fragment: that part is sent to nobody. Taken out of the
 * address at once, and kept while the page lives: a screen may be drawn more than once before it stays.
 */
export const takeSecret = (): string => {
  const secret = location.hash.slice(1);
  if (secret) {
    taken = secret;
    history.replaceState(history.state, '', location.pathname);
  }
  return taken;
};
