import type { ReactNode } from 'react';

/**
 * Stands in for parts of the router that it asks for and this app never draws: a native stack and its header, tabs of a
 * telephone, the head of a page for search engines, pages for addresses that lead nowhere (it has its own), the map of all
 * routes, notes to whoever writes a screen. With what they are drawn with they would be a sixth of the first load (metro.config.js).
 */
const Nothing = (): ReactNode => null;

export const createNativeStackNavigator = () => ({ Navigator: Nothing });
export const isNativeTabTrigger = (): boolean => false;
export const initScreensFeatureFlags = (): void => undefined;
export const Head = { Provider: ({ children }: { children: ReactNode }): ReactNode => children };
export const RootUnmatched = Nothing;
export const Sitemap = Nothing;
export const Toast = Nothing;
export const ToastWrapper = Nothing;
export const Unmatched = Nothing;
