/** Our own drawn lamp, as SVG paths on a 24-unit square: what stands still, and the glass that glows. */
export const lampBody = 'M12 1.5v2.5M4.5 9.5 8.5 4h7l4 5.5zM7.300 20.5h9.400M10 18v2.5M14 18v2.5';
export const lampGlass = 'M6.5 9.5h11L16 18H8z';
