// Draws the app's icons from its lamp: what stands on home screens, and the glyph in one colour that alerts carry.
import { mkdirSync } from 'node:fs';
import sharp from 'sharp';

const INK = '#141C2B';
const PAPER = '#FBF6EC';
const LIGHT = '#FFC857';

const lamp = (line, glass) =>
  `<g stroke="${line}" stroke-width="1.5" stroke-linejoin="round" stroke-linecap="round" fill="none"><path fill="${glass}" d="M6.5 9.5h11L16 18H8z"/><path d="M12 2v2M4.5 9.5 8.5 4h7l4 5.5zM7.3 20.5h9.4M10 18v2.5M14 18v2.5"/></g>`;

/** The lamp on a ground, so much of the side being margin; `corner` of the ground in the same units. */
const onGround = (margin, corner) => {
  const side = 24 / (1 - 2 * margin);
  const at = side * margin;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${-at} ${-at} ${side} ${side}"><rect x="${-at}" y="${-at}" width="${side}" height="${side}" rx="${corner}" fill="${INK}"/>${lamp(PAPER, LIGHT)}</svg>`;
};

/** One colour on nothing: the platform gives it the colour that it likes. */
const glyph = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">${lamp('#FFFFFF', '#FFFFFF')}</svg>`;

const icons = [
  ['lamp-192', onGround(0.14, 3), 192],
  ['lamp-512', onGround(0.14, 3), 512],
  // Phones cut a home screen's icon to a shape of their own: everything lies within the middle four fifths.
  ['maskable-192', onGround(0.24, 0), 192],
  ['maskable-512', onGround(0.24, 0), 512],
  ['apple-180', onGround(0.18, 0), 180],
  ['glyph-96', glyph, 96],
  ['glyph-512', glyph, 512],
];

/** Writes them all into a folder. */
export const makeIcons = async (folder) => {
  mkdirSync(folder, { recursive: true });
  for (const [name, svg, side] of icons) {
    await sharp(Buffer.from(svg), { density: 1200 })
      .resize(side, side)
      .png({ palette: true })
      .toFile(`${folder}/${name}.png`);
  }
};
