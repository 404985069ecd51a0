export const ORDER_NUMBER_LONGEST = 40;

/** By what an order is found, however its number is written: "#qf 1101" and "QF-1101" → "QF1101"; '' for none. */
export const orderKey = (number: string): string =>
  number
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[^\p{L}\p{N}]/gu, '')
    .slice(0, ORDER_NUMBER_LONGEST);
