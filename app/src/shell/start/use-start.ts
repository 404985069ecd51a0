import { router } from 'expo-router';
import { useEffect, useLayoutEffect } from 'react';
import { WIDE } from '../../kit/theme/sizes';
import { dropBefore } from './before';
import { captured, hashOf } from './capture';
import { keepLine } from './kept';

/** Not while somebody scrolls or types, and not at each piece of news. */
const KEPT_AFTER_MS = 2_000;

const rulesNow = (): string[] => {
  const element = document.getElementById('react-native-stylesheet') as HTMLStyleElement | null;
  return [...(element?.sheet?.cssRules ?? [])].map(({ cssText }) => cssText);
};

/** Keeps the line as it stands on the screen now, if it does. */
const keepNow = async (): Promise<void> => {
  const root = document.getElementById('root');
  if (!root || location.pathname !== '/line' || !crypto.subtle) return;
  const screen = {
    isWide: innerWidth >= WIDE,
    isDark: matchMedia('(prefers-color-scheme: dark)').matches,
  };
  const isInSight = (element: Element): boolean =>
    element.getBoundingClientRect().top < innerHeight;
  const { html, css } = captured(root, rulesNow(), screen, isInSight);
  if (/<\/style/i.test(css)) return;
  await keepLine({ html, css, hash: await hashOf(css) });
};

const keepQuietly = (): void => void keepNow().catch(() => undefined);

/**
 * The line is drawn, or that it cannot be: what stood there before it goes. `drawn`: another one whenever something
 * else of it is drawn, which is kept for the next start; null while none of it is.
 */
export const useLineDrawn = (isDrawn: boolean, drawn: string | null): void => {
  useLayoutEffect(() => {
    if (!isDrawn) return;
    const wanted = dropBefore();
    if (wanted) router.navigate(`/line/${wanted}`);
  }, [isDrawn]);
  useEffect(() => {
    if (drawn === null || typeof document === 'undefined') return;
    const timer = setTimeout(keepQuietly, KEPT_AFTER_MS);
    const leave = (): void => {
      if (document.visibilityState === 'hidden') keepQuietly();
    };
    document.addEventListener('visibilitychange', leave);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('visibilitychange', leave);
    };
  }, [drawn]);
};

/** Something else than the line is drawn: what stood there before the app is of no use. */
export const useBeforeDropped = (isElse: boolean): void => {
  useLayoutEffect(() => {
    if (isElse) dropBefore();
  }, [isElse]);
};
