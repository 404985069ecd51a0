import { createElement, type ReactElement } from 'react';
import { unstable_createElement } from 'react-native-web';

type Props = Record<string, unknown>;

const drawn =
  (tag: string) =>
  (props: Props): ReactElement =>
    createElement(tag, props);

/** What a browser draws by itself, under the names that react-native-svg has for it. */
export const Svg = (props: Props): ReactElement => unstable_createElement('svg', props);
export const Circle = drawn('circle');
export const Ellipse = drawn('ellipse');
export const G = drawn('g');
export const Line = drawn('line');
export const Path = drawn('path');
export const Polygon = drawn('polygon');
export const Polyline = drawn('polyline');
export const Rect = drawn('rect');

// As react-native-svg has it.
export default Svg;
