import { day, night, type Palette } from '@porch/core/theme';
import { useColorScheme } from 'react-native';

/** The palette of the system's light or dark mode. */
export const useTheme = (): Palette => (useColorScheme() === 'dark' ? night : day);
