import { day, night, type Palette } from '@porch/core/theme';
import { useSyncExternalStore } from 'react';
import { Appearance } from 'react-native';

// Not `useColorScheme`: on the web it listens anew with every drawing, and whoever is drawn because of the first that
// hears of a change misses it. By day half of a screen then stayed as it was by night.
const listen = (changed: () => void): (() => void) => {
  const listening = Appearance.addChangeListener(changed);
  return () => listening.remove();
};

const palette = (): Palette => (Appearance.getColorScheme() === 'dark' ? night : day);

/** The palette of the system's light or dark mode. */
export const useTheme = (): Palette => useSyncExternalStore(listen, palette, palette);
