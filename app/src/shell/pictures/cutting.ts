import type { Crop } from '@porch/contract/house';

/** A picture and the square of it that is meant. */
export interface Cut {
  picture: Blob;
  crop: Crop;
}

/** A square on a picture, in the picture's own pixels; it never leaves the picture. */
export interface Cutting {
  width: number;
  height: number;
  left: number;
  top: number;
  side: number;
}

/** The smallest square that still looks sharp on a plate. */
const SIDE_LEAST = 40;

const between = (value: number, least: number, most: number): number =>
  Math.min(Math.max(value, least), Math.max(least, most));

const within = (cutting: Cutting): Cutting => ({
  ...cutting,
  left: between(cutting.left, 0, cutting.width - cutting.side),
  top: between(cutting.top, 0, cutting.height - cutting.side),
});

/** The largest square in the middle of a picture. */
export const firstCutting = (width: number, height: number): Cutting => {
  const side = Math.min(width, height);
  return { width, height, side, left: (width - side) / 2, top: (height - side) / 2 };
};

/** The square moved by pixels of the screen, on which it is `viewPx` wide. */
export const moved = (cutting: Cutting, dx: number, dy: number, viewPx: number): Cutting => {
  const perPx = cutting.side / viewPx;
  return within({
    ...cutting,
    left: cutting.left + dx * perPx,
    top: cutting.top + dy * perPx,
  });
};

/** The square made smaller (`times` over 1: closer) or larger about its own middle. */
export const zoomed = (cutting: Cutting, times: number): Cutting => {
  const most = Math.min(cutting.width, cutting.height);
  const side = between(cutting.side / times, Math.min(SIDE_LEAST, most), most);
  const shift = (cutting.side - side) / 2;
  return within({ ...cutting, side, left: cutting.left + shift, top: cutting.top + shift });
};

/** The square in whole pixels. */
export const cutOf = ({ left, top, side }: Cutting): Crop => ({
  left: Math.floor(left),
  top: Math.floor(top),
  side: Math.max(1, Math.floor(side)),
});
