import type { PhonePlate, PlateShape } from './dress';

/**
 * What a closed door's shape adds to the plate's style sheet: a website's page gets that of its own door and of no
 * other. `--s` is the size of text there. The upright plate is what the sheet itself describes.
 */
export const shapeCss: Readonly<Record<PlateShape, string>> = {
  upright: '',
  lintel:
    '.lintel .plate{flex-direction:row;width:auto;max-width:min(320px,80vw);min-height:60px;padding:6px 18px 6px 12px;gap:10px;text-align:start;border-width:2px 2px 6px}',
  latch:
    '.door.latch{right:0}.latch.left{left:0;right:auto}' +
    '.latch .plate{width:60px;min-height:148px;padding:12px 6px;border-inline-end:0;border-radius:4px 0 0 4px}' +
    '.latch.left .plate{border-radius:0 4px 4px 0}' +
    '.latch .words{writing-mode:vertical-rl;max-height:40vh}',
};

const small =
  '.on-small .plate{flex-direction:row;width:auto;max-width:54vw;min-width:min-content;overflow-wrap:break-word;min-height:48px;max-height:64px;padding:4px 8px 4px 6px;gap:5px;text-align:start;overflow:hidden}' +
  '.on-small .name{display:none}' +
  '.on-small svg,.on-small img{width:28px;height:28px}' +
  '.on-small .words{writing-mode:initial;max-width:40vw}' +
  '.on-small .more{font-weight:600;color:inherit}';

/** What its form on a small screen adds, over its shape's: at most 64 pixels high, so that it never covers what people came to read. */
export const phoneCss: Readonly<Record<PhonePlate, string>> = {
  small: `@media(max-width:520px){${small}}`,
  usual: '',
};
