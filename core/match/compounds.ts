/** Languages that write what others say in several words as one. */
const joining: ReadonlySet<string> = new Set(['de', 'nl']);

/** What may stand between two parts: "Geburtstag-s-karte", "Blume-n-topf". */
const joints = ['', 's', 'n', 'en', 'es', 'e'];

const PART_SHORTEST = 4;
const HEAD_SHORTEST = 3;

/**
 * The parts of a word that is put together, as far as they are known: "versandkost" → ["versand", "kost"]. Where only the
 * last part is known, which says what it is, that one; where only the first is, that one if it is long. `isKnown`: whether
 * such a stem says something here; `stem`: the stem of a word.
 */
export const partsOf = (
  word: string,
  language: string,
  isKnown: (stem: string) => boolean,
  stem: (word: string) => string,
): string[] => {
  if (!joining.has(language) || word.length < PART_SHORTEST + HEAD_SHORTEST) return [];
  const known = (part: string, shortest: number): string | null => {
    if (part.length < shortest) return null;
    const found = stem(part);
    return found.length >= HEAD_SHORTEST && isKnown(found) ? found : isKnown(part) ? part : null;
  };
  let single: string[] = [];
  for (let at = word.length - HEAD_SHORTEST; at >= PART_SHORTEST; at -= 1) {
    const end = word.slice(at);
    const begin = word.slice(0, at);
    const last = known(end, HEAD_SHORTEST);
    const first = joints
      .filter((joint) => begin.endsWith(joint))
      .map((joint) => known(begin.slice(0, begin.length - joint.length), PART_SHORTEST))
      .find((part) => part !== null);
    if (first && last) return [first, last];
    if (last && end.length >= PART_SHORTEST) single = [last];
    else if (first && first.length > PART_SHORTEST && single.length === 0) single = [first];
  }
  return single;
};
