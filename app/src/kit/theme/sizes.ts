import { Platform } from 'react-native';

/** How much larger than usual the reader has set their text; layouts grow with it. */
const textScale = (): number => {
  if (Platform.OS !== 'web' || typeof document === 'undefined') return 1;
  const size = Number.parseFloat(getComputedStyle(document.documentElement).fontSize);
  return Number.isFinite(size) && size > 0 ? Math.min(2.5, Math.max(1, size / 16)) : 1;
};

export const scale = textScale();

export const headings = '"Bricolage Grotesque", system-ui, sans-serif';
export const plain = '"Atkinson Hyperlegible Next", system-ui, sans-serif';

export const text = {
  small: 13 * scale,
  second: 15 * scale,
  body: 17 * scale,
  name: 18 * scale,
  title: 22 * scale,
  large: 30 * scale,
} as const;

export const touch = 48;
export const corner = 4;

/** From here on the line, the conversation and the person stand side by side. */
export const WIDE = 900;
