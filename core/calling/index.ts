import type { ConversationState } from '../conversation';
import { shownPage } from '../pages';
import type { Site } from '../website';

/** By what somebody is called: their name, or what else is known of them. */
export type Call =
  | { by: 'name' | 'email' | 'phone' | 'page' | 'city'; what: string }
  | { by: 'nothing' };

export interface Surroundings {
  /** The business's name: a page's title often ends with it, which tells nobody apart. */
  business: string;
  zone: string;
  /** The websites of the door by which they came. */
  sites: readonly Site[];
}

type Known = Pick<ConversationState, 'name' | 'email' | 'phone' | 'page' | 'zone'>;

/** The place that a time zone is named after. "Europe/Lisbon" → "Lisbon"; "UTC", "" → "". */
export const cityOf = (zone: string): string =>
  zone.includes('/') && !zone.startsWith('Etc/')
    ? zone.slice(zone.lastIndexOf('/') + 1).replaceAll('_', ' ')
    : '';

/**
 * What somebody is called. Without a name the most telling thing that is known: how they can be reached, the page
 * that they are on, or that they live by another clock than the business.
 */
export const callOf = (known: Known, around: Surroundings): Call => {
  for (const by of ['name', 'email', 'phone'] as const) {
    if (known[by]) return { by, what: known[by] };
  }
  const page = known.page && shownPage(known.page, around);
  if (page) return { by: 'page', what: page.title || page.host };
  const city = known.zone === around.zone ? '' : cityOf(known.zone);
  return city ? { by: 'city', what: city } : { by: 'nothing' };
};

/** What somebody is called of whom no name is known, in one language. */
export interface CallWords {
  page: (page: string) => string;
  city: (city: string) => string;
  nothing: string;
}

/** What somebody is called, in words. */
export const callInWords = (call: Call, words: CallWords): string => {
  switch (call.by) {
    case 'page':
    case 'city':
      return words[call.by](call.what);
    case 'nothing':
      return words.nothing;
    default:
      return call.what;
  }
};

/** Strokes on a grid of 24 by 24, left half; each is drawn on the right as well, so that the mark is of one piece. */
const strokes = [
  'M12 3v9',
  'M12 12v9',
  'M12 3L5 8',
  'M12 21L5 16',
  'M5 8v8',
  'M5 8L12 12',
  'M5 16L12 12',
  'M5 12h7',
  'M3 3h5',
  'M3 21h5',
  'M12 7L8 3',
  'M12 17L8 21',
] as const;

const STROKES_LEAST = 3;

/** FNV-1a, 32 bits (draft-eastlake-fnv): spreads ids that look alike. */
const hashOf = (text: string): number => {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at += 1) {
    hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193) >>> 0;
  }
  return (hash ^ (hash >>> 15)) >>> 0;
};

/** "M12 3L5 8" → its mirror image, "M12 3L19 8". */
const mirrored = (stroke: string): string =>
  stroke
    .replace(/([ML])(\d+)/g, (_whole, letter, x) => `${letter}${24 - Number(x)}`)
    .replace(/h(\d+)/, 'h-$1');

/** A small drawn mark for an id, as the path of an SVG of 24 by 24: the same for ever, another for nearly every other. */
export const markOf = (id: string): string => {
  const hash = hashOf(id);
  const chosen = strokes.filter((_stroke, index) => (hash >> index) & 1);
  const first = hash % strokes.length;
  for (let step = 0; chosen.length < STROKES_LEAST; step += 1) {
    const stroke = strokes[(first + step * 5) % strokes.length];
    if (stroke && !chosen.includes(stroke)) chosen.push(stroke);
  }
  return chosen.flatMap((stroke) => [stroke, mirrored(stroke)]).join('');
};
