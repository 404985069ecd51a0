/** Debian's Chromium. */
export declare const wholeBrowserPath: string;
/** The one that tests, pictures and measurements use wherever it does. */
export declare const browserPath: () => string;
