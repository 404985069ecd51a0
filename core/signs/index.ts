import type { Hello } from '../dress';
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

/** What is known when somebody has written at a lit door. */
export interface WrittenLit {
  light: Light;
  hello: Hello;
  /** They have written nothing before, or nothing for so long that it is another visit. */
  isFirst: boolean;
  isAutomatic: boolean;
  /** By the business's clock: 0 is Monday, and the minute of the day. */
  weekday: number;
  minute: number;
}

const isWithin = ({ from, to }: Hello, minute: number): boolean => {
  if (from === to) return true;
  return from < to ? minute >= from && minute < to : minute >= from || minute < to;
};

/** Whether a door acknowledges what somebody wrote while the light is lit: a first message, on the days and at the times that the owner chose. */
export const saysHello = (written: WrittenLit, now: number): boolean => {
  const { light, hello, isFirst, isAutomatic, weekday, minute } = written;
  if (!hello.isOn || !isFirst || isAutomatic || lampAt(light, now).state !== 'lit') return false;
  // What goes past midnight is of the day on which it began.
  const isPastMidnight = hello.from > hello.to && minute < hello.to;
  const day = isPastMidnight ? (weekday + 6) % 7 : weekday;
  return (hello.days.length === 0 || hello.days.includes(day)) && isWithin(hello, minute);
};
