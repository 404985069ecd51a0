import type { LampState } from '@porch/core/lamp';
import Svg, { Path } from 'react-native-svg';
import { useTheme } from '../theme/use-theme';

const glass = 'M6.5 9.5h11L16 18H8z';
const body = 'M12 1.5v2.5M4.5 9.5 8.5 4h7l4 5.5zM7.300 20.5h9.400M10 18v2.5M14 18v2.5';

/** The porch lamp, drawn: its glass glows when somebody is in, and only then. */
export const LampGlyph = ({ state, size = 34 }: { state: LampState; size?: number }) => {
  const theme = useTheme();
  const line = {
    stroke: theme.ink,
    strokeWidth: 1.5,
    strokeLinejoin: 'round',
    strokeLinecap: 'round',
  } as const;
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" fill="none" aria-hidden>
      <Path d={glass} fill={state === 'lit' ? theme.lamp : 'none'} {...line} />
      {state === 'back-soon' ? <Path d="M12 11.5v3l2 1.200" {...line} /> : null}
      <Path d={body} {...line} />
    </Svg>
  );
};
