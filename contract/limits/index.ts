/** Bounds that forms show before anything is sent. */
export const PASSWORD_SHORTEST = 10;
export const PASSWORD_LONGEST = 200;
