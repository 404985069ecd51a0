/** In what type a door speaks: stacks of what devices have, so that it costs a page no byte. */
export const typefaces = ['plain', 'serif', 'rounded', 'typed'] as const;
export type Typeface = (typeof typefaces)[number];

const stacks: Readonly<Record<Typeface, string>> = {
  plain: 'system-ui,sans-serif',
  serif: 'ui-serif,Charter,"Bitstream Charter",Georgia,serif',
  rounded: 'ui-rounded,"Hiragino Maru Gothic ProN","Arial Rounded MT Bold",Quicksand,system-ui',
  typed: 'ui-monospace,"Cascadia Code",Menlo,Consolas,monospace',
};

/** The `font-family` of a typeface. */
export const stackOf = (type: Typeface): string => stacks[type];

export const panelSizes = ['small', 'usual', 'large'] as const;
export type PanelSize = (typeof panelSizes)[number];

/** How wide and how high the open panel stands on a large screen, in CSS pixels. */
export const panelPixels: Readonly<Record<PanelSize, readonly [number, number]>> = {
  small: [340, 520],
  usual: [400, 640],
  large: [480, 760],
};
