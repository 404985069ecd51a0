import type { LampState } from '@porch/core/lamp';
import Svg, { Path } from 'react-native-svg';
import { useTheme } from '../theme/use-theme';

/** The porch lamp, drawn: it glows when somebody is in, and only then. */
export const LampGlyph = ({ state, size = 30 }: { state: LampState; size?: number }) => {
  const theme = useTheme();
  const isLit = state === 'lit';
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" fill="none" aria-hidden>
      {isLit ? <Path d="M8 9.5 9.500 5h5L16 9.500v8H8z" fill={theme.lamp} opacity={0.45} /> : null}
      <Path
        d="M12 2v3M8 9.500 9.500 5h5L16 9.500v8H8zM7 21h10M10 17.500V21M14 17.500V21"
        stroke={theme.ink}
        strokeWidth={1.5}
        strokeLinejoin="round"
        strokeLinecap="round"
      />
      {state === 'dark' ? null : (
        <Path
          d="M12 10.200c1.500 1.600 1.900 2.500 1.900 3.400a1.900 1.900 0 0 1-3.800 0c0-.9.4-1.800 1.900-3.400z"
          fill={isLit ? theme.lamp : 'none'}
          stroke={isLit ? 'none' : theme.ink}
          strokeWidth={1.2}
        />
      )}
    </Svg>
  );
};
