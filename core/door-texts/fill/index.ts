export type { TextKey } from '../en';

/** "Back at {time}" and { time: "14:00" } → "Back at 14:00"; a gap without a value is left out. */
export const fillGaps = (text: string, values: Readonly<Record<string, string | number>>): string =>
  text.replace(/\{(\w+)\}/g, (_gap, name: string) => String(values[name] ?? ''));

/** The names of the gaps in a text. "Back at {time}" → ["time"]. */
export const gapsIn = (text: string): string[] =>
  [...text.matchAll(/\{(\w*)\}/g)].map(([, name]) => name ?? '');
