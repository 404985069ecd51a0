/** No sign that is easily taken for another one. */
const SIGNS = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const PART = 3;
export const CLAIM_BYTES = PART * 2;

/** A code from six random bytes: [0, 1, 2, 3, 4, 31] → "234-56Z". 32 signs, so that each is as likely. */
export const claimCode = (random: Uint8Array): string => {
  const signs = [...random.subarray(0, CLAIM_BYTES)].map((byte) => SIGNS[byte % SIGNS.length]);
  return `${signs.slice(0, PART).join('')}-${signs.slice(PART).join('')}`;
};

const CODES_MOST = 3;

/** What may be codes in a text, as they are made: "Hello (abc-2de)" → ["ABC-2DE"]. */
export const claimsIn = (text: string): string[] =>
  [...text.matchAll(/(?<![\w-])[2-9A-HJ-NP-Z]{3}-[2-9A-HJ-NP-Z]{3}(?![\w-])/gi)]
    .slice(0, CODES_MOST)
    .map(([code]) => code.toUpperCase());
