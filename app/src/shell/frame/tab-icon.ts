/** Beyond this the number says only that it is many. */
const COUNTED_MOST = 9;

const drawing = (count: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><rect width="24" height="24" rx="2" fill="#141C2B"/><g stroke="#FBF6EC" stroke-width="1.5" stroke-linejoin="round" stroke-linecap="round" fill="none"><path fill="#FFC857" d="M6.5 9.5h11L16 18H8z"/><path d="M12 2v2M4.5 9.5 8.5 4h7l4 5.5zM7.300 20.5h9.400M10 18v2.5M14 18v2.5"/></g><path fill="#FBF6EC" d="M11 10h13v14H11z"/><text x="17.500" y="22" font-family="sans-serif" font-size="14" font-weight="700" text-anchor="middle" fill="#A93A26">${count}</text></svg>`;

/** The tab's icon with how many wait on it: an address of the drawing. */
export const iconFor = (waiting: number): string => {
  if (waiting === 0) return '/lamp.svg';
  const count = waiting > COUNTED_MOST ? `${COUNTED_MOST}+` : `${waiting}`;
  return `data:image/svg+xml,${encodeURIComponent(drawing(count))}`;
};

/** Shows on the tab's icon how many wait. */
export const showOnTab = (waiting: number): void => {
  document.querySelector('link[rel="icon"]')?.setAttribute('href', iconFor(waiting));
};
