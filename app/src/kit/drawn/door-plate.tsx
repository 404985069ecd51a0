import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { useTheme } from '../theme/use-theme';

/** The plate of a door: one small upright shape for all doors, with the door's own glyph on it. */
export const DoorPlate = ({ size = 34 }: { size?: number }) => {
  const theme = useTheme();
  return (
    <View aria-hidden>
      <Svg width={size * 0.76} height={size} viewBox="0 0 19 25" fill="none">
        <Rect x={1} y={1} width={17} height={23} rx={2} stroke={theme.ink} strokeWidth={1.5} />
        <Path
          d="M4.500 8.500h10v8h-10zM4.500 11h10M6.500 9.750h.01"
          stroke={theme.ink}
          strokeWidth={1.2}
          strokeLinejoin="round"
          strokeLinecap="round"
        />
      </Svg>
    </View>
  );
};
