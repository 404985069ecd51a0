/** Bounds that forms show before anything is sent. */
export const PASSWORD_SHORTEST = 10;
export const PASSWORD_LONGEST = 200;

/** How many rows, entries or finds a page has. */
export const LINE_PAGE = 30;
export const ROLL_PAGE = 40;

/** How much one letter says where no socket can be had: a hello, and what came since the last letter. */
export const LETTER_MOST = 8;

/** So much a website may say of somebody whom it has signed in, in characters. */
export const SIGNED_LONGEST = 2_000;
