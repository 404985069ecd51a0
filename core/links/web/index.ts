/** Whether it is the address of a page, in full: "https://quillfern.example/a". `longest` in characters. */
export const isWebLink = (link: string, longest: number): boolean =>
  link.length <= longest && /^https?:\/\/[^\s]+\.[^\s]+$/i.test(link);
