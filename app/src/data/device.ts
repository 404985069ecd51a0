import type { DeviceKind } from '@porch/contract/team';

const PHONE_WIDEST = 600;

/** Whether this is a phone: something narrow that is held in a hand. */
export const deviceKind = (): DeviceKind =>
  Math.min(window.screen.width, window.innerWidth) <= PHONE_WIDEST ? 'phone' : 'computer';

/** The secret of a link, which stands in its fragment: that part is sent to nobody. Taken out of the address at once. */
export const takeSecret = (): string => {
  const secret = location.hash.slice(1);
  if (secret) history.replaceState(history.state, '', location.pathname);
  return secret;
};
