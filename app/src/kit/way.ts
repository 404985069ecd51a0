import { router } from 'expo-router';
import type { GestureResponderEvent } from 'react-native';

/** Whoever holds one of these keys wants it opened elsewhere; the browser knows how. */
const isForTheBrowser = (event: GestureResponderEvent): boolean => {
  const { metaKey, ctrlKey, shiftKey } = event.nativeEvent as unknown as MouseEvent;
  return metaKey || ctrlKey || shiftKey;
};

/**
 * What makes something a real link to an address of the app: Enter follows it, it can be opened in a new tab, and its
 * address can be copied. A plain tap goes there without loading the page anew. `go`: where more is done than that.
 */
export const wayTo = (to: string, go: () => void = () => router.navigate(to)) => ({
  role: 'link' as const,
  href: to,
  onPress: (event: GestureResponderEvent): void => {
    if (isForTheBrowser(event)) return;
    event.preventDefault();
    go();
  },
});

/** Where a row leads, or what it does. */
export type WayOn = string | (() => void);

/** A link to an address of the app, or a button. */
export const wayOn = (to: WayOn) =>
  typeof to === 'string' ? wayTo(to) : { role: 'button' as const, onPress: to };
