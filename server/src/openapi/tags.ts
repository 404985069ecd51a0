/** The headings under which routes stand, in order. */
export const tags = ['Team', 'Website door', 'Networks', 'Everybody'] as const;

export type Tag = (typeof tags)[number];

/** Under which heading a route stands. */
export const tagOf = (url: string): Tag => {
  if (url.startsWith('/api/')) return 'Team';
  if (url.startsWith('/in/')) return 'Networks';
  return /^\/(door|talk|widget|pictures)\/|^\/loader\.js$/.test(url) ? 'Website door' : 'Everybody';
};
