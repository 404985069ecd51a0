import { createSmallStore } from '../session/small-store';

/** In which element of the page it stands. */
export const BEFORE_ID = 'before';

/** In which element of the page its style sheet stands. */
export const BEFORE_STYLE_ID = 'before-style';

/** The last line that was seen, as a page shows it before the app has started. */
export interface StartPage {
  html: string;
  css: string;
  /** By which a page's policy lets the style sheet through: CSP level 3, `sha256-…` in base64. */
  hash: string;
}

const store = createSmallStore<StartPage>('porch-start');
const LINE = 'line';

/** The app keeps it, its service worker puts it into the page. */
export const keptLine = (): Promise<StartPage | null> => store.get(LINE);
export const keepLine = (page: StartPage): Promise<void> => store.set(LINE, page);
export const forgetLine = (): Promise<void> => store.drop(LINE);
