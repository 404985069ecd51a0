import { contrast, day, type Hex, luminance, night } from '../theme';

/** The two colours that an owner chooses; all others follow from them. */
export interface ChosenColours {
  ground: Hex;
  accent: Hex;
}

/** Every colour of a door, each legible on the ones it stands on (WCAG 2.2, 1.4.3 and 1.4.11). */
export interface DoorColours {
  ground: Hex;
  raised: Hex;
  seam: Hex;
  edge: Hex;
  ink: Hex;
  second: Hex;
  accent: Hex;
  onAccent: Hex;
  link: Hex;
  problem: Hex;
  done: Hex;
  lamp: Hex;
}

const TEXT_CONTRAST = 4.5;
const CONTROL_CONTRAST = 3;

/**
 * A colour as people type it → "#RRGGBB". "#2f6" → "#22FF66", "2F6247" → "#2F6247"; a name or
 * anything else → null.
 */
export const toHex = (typed: string): Hex | null => {
  const digits = /^\s*#?([0-9a-f]{3}|[0-9a-f]{6})\s*$/i.exec(typed)?.[1];
  if (!digits) return null;
  const full = digits.length === 3 ? digits.replace(/./g, '$&$&') : digits;
  return `#${full.toUpperCase()}`;
};

const parts = (hex: Hex): number[] =>
  [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16));

const fromParts = (values: readonly number[]): Hex =>
  `#${values
    .map((value) => Math.round(value).toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase()}`;

/** A mixture in sRGB: `share` 0 gives `one`, 1 gives `other`. */
export const mix = (one: Hex, other: Hex, share: number): Hex => {
  const far = parts(other);
  return fromParts(
    parts(one).map((value, index) => value + ((far[index] ?? value) - value) * share),
  );
};

const least = (colour: Hex, grounds: readonly Hex[]): number =>
  Math.min(...grounds.map((ground) => contrast(colour, ground)));

/** The first candidate that is legible on all grounds; otherwise the most legible one. */
const legible = (candidates: readonly Hex[], grounds: readonly Hex[], wanted: number): Hex =>
  candidates.find((one) => least(one, grounds) >= wanted) ??
  [...candidates].sort((a, b) => least(b, grounds) - least(a, grounds))[0] ??
  '#000000';

const steps = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

/** From a colour towards another, in tenths. */
const towards = (from: Hex, to: Hex): Hex[] => [
  from,
  ...steps.map((step) => mix(from, to, step / 10)),
];

/** All colours of a door from the two chosen ones; text can't be made unreadable. */
export const doorColours = ({ ground, accent }: ChosenColours): DoorColours => {
  // On a ground in the middle neither reads at ease, but one of black and white always reads.
  const ink = legible([day.ink, night.ink, '#000000', '#FFFFFF'], [ground], 7);
  const isDark = luminance(ink) > luminance(ground);
  const far = isDark ? '#FFFFFF' : '#000000';
  const raisedWish = mix(ground, ink, 0.07);
  const raised = contrast(ink, raisedWish) >= TEXT_CONTRAST ? raisedWish : ground;
  const grounds = [ground, raised];
  return {
    ground,
    raised,
    seam: mix(ground, ink, 0.18),
    edge: legible(towards(mix(ground, ink, 0.45), far), grounds, CONTROL_CONTRAST),
    ink,
    second: legible(towards(mix(ink, ground, 0.3), far), grounds, TEXT_CONTRAST),
    accent: legible(towards(accent, ink), [ground], CONTROL_CONTRAST),
    onAccent: legible(
      [day.paper, day.ink, '#FFFFFF', '#000000'],
      [legible(towards(accent, ink), [ground], CONTROL_CONTRAST)],
      TEXT_CONTRAST,
    ),
    link: legible(towards(accent, ink), grounds, TEXT_CONTRAST),
    problem: legible(towards(isDark ? night.brick : day.brick, far), grounds, TEXT_CONTRAST),
    done: legible(towards(isDark ? night.moss : day.moss, far), grounds, TEXT_CONTRAST),
    lamp: isDark ? night.lamp : day.lamp,
  };
};

/** The same door after dusk: a light ground turns to night with a breath of itself; a dark one stays. */
export const doorColoursAtNight = ({ ground, accent }: ChosenColours): DoorColours => {
  if (luminance(ground) < 0.18) return doorColours({ ground, accent });
  const dusk = mix(night.paper, ground, 0.03);
  const lighter = legible(towards(accent, night.ink), [dusk], TEXT_CONTRAST);
  return doorColours({ ground: dusk, accent: lighter });
};

/** The colours of a door by day and by night. */
export const bothColours = (chosen: ChosenColours) => ({
  day: doorColours(chosen),
  night: doorColoursAtNight(chosen),
});

/** Four pairs to start from. */
export const readyColours = {
  dusk: { ground: '#FBF6EC', accent: '#22304A' },
  fernery: { ground: '#F1F5EC', accent: '#2F6247' },
  brickwork: { ground: '#FBF1EC', accent: '#8F3A25' },
  harbour: { ground: '#EDF3F7', accent: '#1F5673' },
} as const satisfies Record<string, ChosenColours>;

export type ReadyColours = keyof typeof readyColours;

const saturation = ([red = 0, green = 0, blue = 0]: readonly number[]): number => {
  const most = Math.max(red, green, blue);
  return most === 0 ? 0 : (most - Math.min(red, green, blue)) / most;
};

/**
 * A pair of colours taken from a picture (RGB bytes, three a pixel): its most telling colour as the
 * accent, and a breath of it as the ground. No pixels → the first ready pair.
 */
export const coloursOfPicture = (rgb: Uint8Array): ChosenColours => {
  const bins = new Map<number, { count: number; sum: number[] }>();
  for (let at = 0; at + 2 < rgb.length; at += 3) {
    const [red = 0, green = 0, blue = 0] = rgb.subarray(at, at + 3);
    const bin = ((red >> 4) << 8) | ((green >> 4) << 4) | (blue >> 4);
    const { count, sum } = bins.get(bin) ?? { count: 0, sum: [0, 0, 0] };
    const [r = 0, g = 0, b = 0] = sum;
    bins.set(bin, { count: count + 1, sum: [r + red, g + green, b + blue] });
  }
  const colours = [...bins.values()].map(({ count, sum }) => {
    const mean = sum.map((value) => value / count);
    // Often and vivid beats very often and grey.
    return { mean, weight: count * (0.04 + saturation(mean) ** 2) };
  });
  const best = colours.sort((a, b) => b.weight - a.weight)[0];
  if (!best) return readyColours.dusk;
  const accent = fromParts(best.mean);
  return { ground: mix('#FFFFFF', accent, 0.06), accent };
};
