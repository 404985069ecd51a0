import { markOf } from '@porch/core/calling';
import Svg, { Path } from 'react-native-svg';
import { useTheme } from '../theme/use-theme';

/** A small drawn mark of somebody without a name, by which eyes find them again. It says nothing aloud. */
export const OwnMark = ({ id, size = 20 }: { id: string; size?: number }) => {
  const theme = useTheme();
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path
        d={markOf(id)}
        fill="none"
        stroke={theme.ember}
        strokeWidth={2.2}
        strokeLinecap="round"
      />
    </Svg>
  );
};
