/** So many things go with one answer. */
export const SHELF_SAID_MOST = 3;
