/** Bounds that forms show before anything is sent. */
export const PASSWORD_SHORTEST = 10;
export const PASSWORD_LONGEST = 200;

/** How many rows, entries or finds a page has. */
export const LINE_PAGE = 30;
export const ROLL_PAGE = 40;
