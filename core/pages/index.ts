import type { Page } from '../conversation/entry';
import { isListed, type Site, toSite } from '../website';

/** A page of somebody's path as it may be shown. */
export interface ShownPage {
  /** What the page calls itself; empty where that is not to be believed, or nothing. */
  title: string;
  /** On which website it stands; never left out where that is not one of ours. */
  host: string;
  /** Where on its website it is, as people read it: "/delivery"; empty for its first page, and where it is not ours. */
  path: string;
  /** Where it can be opened; null for a page of a website that is not on the door's list. */
  href: string | null;
}

/** A title without the business's name at its end. "Monstera – Quillfern Nursery" → "Monstera". */
const ownPart = (title: string, business: string): string => {
  const at = title.lastIndexOf(business);
  if (!business || at <= 0 || at + business.length !== title.length) return title;
  return title.slice(0, at).replace(/[\s\-–—|·:,]+$/, '') || title;
};

/** The path of an address, with its letters as they are written. */
const pathOf = (url: string): string => {
  const { pathname } = new URL(url);
  if (pathname === '/') return '';
  try {
    return decodeURI(pathname);
  } catch {
    return pathname;
  }
};

/**
 * What may be shown of a page that a visitor says they are on. The words are theirs, and so may be the address: a
 * website that is not the owner's is named by its host, and is no link.
 */
export const shownPage = (
  page: Page,
  { business, sites }: { business: string; sites: readonly Site[] },
): ShownPage => {
  const host = toSite(page.url) ?? '';
  const isOurs = isListed(sites, page.url);
  return {
    title: isOurs ? ownPart(page.title, business) : '',
    host,
    path: isOurs ? pathOf(page.url) : '',
    href: isOurs ? page.url : null,
  };
};
