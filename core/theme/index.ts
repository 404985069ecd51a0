/** A colour as sRGB hex, "#RRGGBB". */
export type Hex = string;

export interface Palette {
  paper: Hex;
  linen: Hex;
  seam: Hex;
  edge: Hex;
  ink: Hex;
  slate: Hex;
  lamp: Hex;
  ember: Hex;
  moss: Hex;
  brick: Hex;
  iris: Hex;
  irisGround: Hex;
  onInk: Hex;
}

/** By day: paper and ink. `edge` is the hairline that marks a control (3:1); `seam` only divides. */
export const day: Palette = {
  paper: '#FBF6EC',
  linen: '#F1E8D8',
  seam: '#DCCFB8',
  edge: '#857A68',
  ink: '#22304A',
  slate: '#55606F',
  lamp: '#F2B134',
  ember: '#8A5200',
  moss: '#2F6247',
  brick: '#A93A26',
  iris: '#5B4B8A',
  irisGround: '#ECE6F4',
  onInk: '#FBF6EC',
};

/** By night: the same house after dusk; the lamp is brighter than all else. */
export const night: Palette = {
  paper: '#141C2B',
  linen: '#1E2839',
  seam: '#33405A',
  edge: '#76839C',
  ink: '#E9E1D0',
  slate: '#A9B1BF',
  lamp: '#FFC857',
  ember: '#F0B95B',
  moss: '#86C3A1',
  brick: '#F2937F',
  iris: '#B9A9E6',
  irisGround: '#2B2844',
  onInk: '#141C2B',
};

const channel = (hex: Hex, at: number): number => {
  const share = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};

/** Relative luminance by WCAG 2.2's definition: 0 (black) to 1 (white). */
export const luminance = (hex: Hex): number =>
  0.2126 * channel(hex, 1) + 0.7152 * channel(hex, 3) + 0.0722 * channel(hex, 5);

/** Contrast ratio by WCAG 2.2, 1.4.3: 1 (same) to 21 (black on white). */
export const contrast = (one: Hex, other: Hex): number => {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [
    number,
    number,
  ];
  return (light + 0.05) / (dark + 0.05);
};
