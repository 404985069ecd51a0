/** Our own drawn glyphs, as SVG paths on a 24-unit square. */
export const lampBody = 'M12 2v3M8 9.5 9.5 5h5L16 9.5v8H8zM7 21h10M10 17.5V21M14 17.5V21';
export const lampFlame = 'M12 10.2c1.5 1.6 1.9 2.5 1.9 3.4a1.9 1.9 0 0 1-3.8 0c0-.9.4-1.8 1.9-3.4z';
