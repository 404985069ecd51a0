/** As the visitor's own browser writes times, whatever the page's language. */
export const clockTime = (at: number): string =>
  new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
