/** Sites on which a website door may stand, as `host` or `host:port`, in lower case without `www.`. */
export type Site = string;

const withoutWww = (host: string): string => host.replace(/^www\./, '');

/**
 * A website's address in any of the usual ways of typing it → the site it names.
 * "HTTPS://www.Quillfern.example/shop?x" → "quillfern.example"; "localhost:4870" keeps its port;
 * an internationalised name is turned to its ASCII form. Nothing usable → null.
 */
export const toSite = (typed: string): Site | null => {
  const text = typed.trim();
  if (!text || text.length > 300 || /\s/.test(text)) return null;
  const withScheme = /^[a-z][a-z0-9+.-]*:\/\//i.test(text) ? text : `https://${text}`;
  try {
    const url = new URL(withScheme);
    if (url.protocol !== 'http:' && url.protocol !== 'https:') return null;
    if (url.username || url.password || !isHost(url.hostname)) return null;
    return withoutWww(url.host);
  } catch {
    return null;
  }
};

const isHost = (name: string): boolean =>
  name === 'localhost' ||
  name.startsWith('[') ||
  (/^[a-z0-9.-]+$/.test(name) && name.includes('.'));

/** Whether a page of `origin` ("https://www.quillfern.example") stands on one of the sites. */
export const isListed = (sites: readonly Site[], origin: string): boolean => {
  if (!/^https?:\/\//.test(origin)) return false;
  const site = toSite(origin);
  return site !== null && sites.includes(site);
};

/**
 * The sources that a `frame-ancestors` directive names (CSP level 3, 6.4.2.1): our own pages, for the preview,
 * and every form of the sites. No sites: `'self'` alone.
 */
export const frameAncestors = (sites: readonly Site[]): string => {
  const sources = sites.flatMap((site) => {
    const isBareName = /^[a-z]/.test(site) && site.includes('.');
    const hosts = isBareName ? [site, `www.${site}`] : [site];
    return hosts.flatMap((host) => [`https://${host}`, `http://${host}`]);
  });
  return ["'self'", ...sources].join(' ');
};

/**
 * The address of a web page as it may be kept and shown → the same text; null for anything else. One with a user
 * name in it is none: "https://quillfern.example@evil.example" is a page of evil.example.
 */
export const webAddress = (typed: string): string | null => {
  if (!/^https?:\/\//i.test(typed)) return null;
  try {
    const { username, password } = new URL(typed);
    return username || password ? null : typed;
  } catch {
    return null;
  }
};

/** Where a site is to be found: over TLS, but for one on this very machine. "quillfern.example" → "https://quillfern.example". */
export const addressOf = (site: Site): string =>
  /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])(:\d+)?$/.test(site)
    ? `http://${site}`
    : `https://${site}`;
