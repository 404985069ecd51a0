import { type Light, lampAt } from '../lamp';

/** What is known when somebody has written at a door. */
export interface Written {
  light: Light;
  /** They have had a door sign since the light went out. */
  hasSign: boolean;
  /** A program wrote it, not a person. */
  isAutomatic: boolean;
}

/** Which words a door sign has: with the time at which somebody is back, or without one. */
export type SignText = 'signUntil' | 'signDark';

/**
 * The one automatic message that answers what somebody wrote while nobody is in; null: none. One a conversation for
 * as long as the light stays out, and never to a program, which might answer it (RFC 3834, 2).
 */
export const signFor = (
  { light, hasSign, isAutomatic }: Written,
  now: number,
): { text: SignText; until: number | null } | null => {
  const { state, until } = lampAt(light, now);
  if (state === 'lit' || hasSign || isAutomatic) return null;
  return { text: until === null ? 'signDark' : 'signUntil', until };
};
