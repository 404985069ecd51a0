import { TEXT_HANDED_LONGEST } from '@porch/contract/doors';

/** A place that somebody sent (RFC 5870): "The greenhouse (geo:55.1,-1.6)". */
export const placeInWords = (latitude: number, longitude: number, called = ''): string => {
  const place = `geo:${latitude},${longitude}`;
  return called ? `${called} (${place})` : place;
};

/** Somebody's card: "Wren · +447700900123". */
export const cardInWords = (...what: readonly (string | undefined)[]): string =>
  what.filter(Boolean).join(' · ');

/** Something of a kind that nobody here knows, with what its network says of it: "[sticker] A waving fern". */
export const kindInWords = (kind: string, said = ''): string =>
  said ? `[${kind}] ${said}` : `[${kind}]`;

/** What somebody said, and what was in it besides. */
export const joinedWords = (...words: readonly string[]): string =>
  words.filter(Boolean).join('\n').slice(0, TEXT_HANDED_LONGEST);
