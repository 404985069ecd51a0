/** Whether it is the address of a page, in full: "https://quillfern.example/a". `longest` in characters. */
export const isWebLink = (link: string, longest: number): boolean =>
  link.length <= longest && /^https?:\/\/[^\s]+\.[^\s]+$/i.test(link);

/** An address as it is shown: "https://quillfern.example/a" → "quillfern.example/a". */
export const shownLink = (link: string): string =>
  link.replace(/^https?:\/\/(www\.)?/i, '').replace(/\/$/, '');
