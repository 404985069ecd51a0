import type { LinkGlyph } from '@porch/core/dress';

/** Our own drawn lamp, as SVG paths on a 24-unit square: what stands still, and the glass that glows. */
export const lampBody = 'M12 1.5v2.5M4.5 9.5 8.5 4h7l4 5.5zM7.3 20.5h9.4M10 18v2.5M14 18v2.5';
export const lampGlass = 'M6.5 9.5h11L16 18H8z';

/** Where a link leads: a sheet with lines, a pin over ground, a shop's awning. */
export const placeGlyphs: Readonly<Record<LinkGlyph, string>> = {
  page: 'M6 3h8l4 4v14H6zM9 11h6M9 15h6',
  map: 'M12 15V9M9.500 6.500a2.500 2.500 0 1 1 5 0a2.500 2.500 0 1 1-5 0M7 13l-4 7h18l-4-7',
  shop: 'M4 9l2-5h12l2 5M4 9h16v3a3 3 0 0 1-5.300 2a3 3 0 0 1-5.400 0A3 3 0 0 1 4 12zM6 15v6h12v-6',
};
