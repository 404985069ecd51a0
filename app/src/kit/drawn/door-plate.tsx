import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { useTheme } from '../theme/use-theme';

/** What is drawn on each; in lines, so that none is anybody's mark. */
const glyphs = {
  window: 'M4.500 8.500h10v8h-10zM4.500 11h10M6.500 9.750h.01',
  phone: 'M6.500 6h6v13h-6zM9 17h1',
  slip: 'M4.500 7.500h7l3 3v7h-10zM7 11.500h5M7 14.250h5',
  waves:
    'M4 10c1.900-2 3.600-2 5.500 0s3.600 2 5.500 0M4 15c1.900-2 3.600-2 5.500 0s3.600 2 5.500 0',
  frame: 'M4.500 7h10v11h-10zM7 9.500h5v6H7z',
  signpost: 'M9.500 6v13M5 8h7.500l2 2.250-2 2.250H5z',
  envelope: 'M4.500 8.500h10v8h-10zM4.500 8.500l5 4.250 5-4.250',
  handset:
    'M5.500 7.500c0 6 3.500 9.500 9 9.500v-2.750l-2.750-1-1.250 1.250c-1.500-.750-2.250-1.500-3-3L8.750 10.250l-1-2.750z',
  hub: 'M6.750 12.500a2.750 2.750 0 1 0 5.500 0a2.750 2.750 0 1 0-5.500 0M9.500 6.500v3.250M9.500 15.250v3.250M4 12.500h2.750M12.250 12.500h2.750',
  arch: 'M4 17.500v-6.500h11v6.500M4 14.500c1.500-3 4-3 5.500 0 1.500-3 4-3 5.500 0',
} as const;
export type DoorGlyph = keyof typeof glyphs;

/** The plate of a door: one small upright shape for all doors, with the door's own glyph on it. */
export const DoorPlate = (props: { size?: number; plate?: DoorGlyph }) => {
  const { size = 34, plate = 'window' } = props;
  const theme = useTheme();
  return (
    <View aria-hidden>
      <Svg width={size * 0.76} height={size} viewBox="0 0 19 25" fill="none">
        <Rect x={1} y={1} width={17} height={23} rx={2} stroke={theme.ink} strokeWidth={1.5} />
        <Path
          d={glyphs[plate]}
          stroke={theme.ink}
          strokeWidth={1.2}
          strokeLinejoin="round"
          strokeLinecap="round"
        />
      </Svg>
    </View>
  );
};
