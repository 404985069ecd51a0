/** So many characters a link takes that goes in the place of a file: an origin, a file's id, a time and a mark. */
const LINK_PLACES = 120;

/** Whether files go as links, all of them: more than a network carries with a message, or one that is too large. */
export const goAsLinks = (
  { filesMost, fileLargestBytes }: { filesMost: number; fileLargestBytes: number },
  files: readonly { sizeBytes: number }[],
): boolean =>
  files.length > filesMost || files.some(({ sizeBytes }) => sizeBytes > fileLargestBytes);

/** A text as long as it will be with links in it: for counting what it comes to, before there are any. */
export const withLinks = (text: string, count: number): string =>
  [text, ...Array.from({ length: count }, () => 'x'.repeat(LINK_PLACES))]
    .filter(Boolean)
    .join('\n');
