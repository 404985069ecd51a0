import { existsSync } from 'node:fs';

/** Debian's Chromium. */
export const wholeBrowserPath = '/usr/bin/chromium';

/** The same without its windows, which costs half as much and shows no alerts. */
export const leanBrowserPath = '/usr/bin/chromium-headless-shell';

/** The one that tests, pictures and measurements use wherever it does. */
export const browserPath = () => (existsSync(leanBrowserPath) ? leanBrowserPath : wholeBrowserPath);
