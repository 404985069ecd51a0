import { pieces } from '@porch/core/links';
import type { Finding } from '@porch/core/writing';
import type { Outside } from '../security/outside';

const LINKS_MOST = 10;
const WAITED_LONGEST_MS = 6_000;
/** A page says so itself (RFC 9110, 15.5.5 and 15.5.11). */
const gone = new Set([404, 410]);

/**
 * Links of a text that lead nowhere: no page is there, or nobody has that name. What cannot be told is not said; what is
 * filled in later cannot.
 */
export const linksToNowhere = async (text: string, outside: Outside): Promise<Finding[]> => {
  const signal = AbortSignal.timeout(WAITED_LONGEST_MS);
  const leadsNowhere = async (link: string): Promise<boolean> => {
    const address = outside.may(link) ? link : link.replace(/^http:/i, 'https:');
    if (!outside.may(address)) return false;
    const asked = { method: 'GET', address, headers: { accept: 'text/html, */*' } };
    try {
      const { status } = await outside.ask({ ...asked, largestBytes: 1, signal });
      return gone.has(status);
    } catch (error) {
      return (error as NodeJS.ErrnoException).code === 'ENOTFOUND';
    }
  };
  const links = pieces(text).filter(({ href }) => href?.startsWith('http') && !/[{}]/.test(href));
  const found = await Promise.all(
    links.slice(0, LINKS_MOST).map(async ({ text: words, at, href }): Promise<Finding[]> => {
      const isNowhere = await leadsNowhere(href ?? '');
      return isNowhere
        ? [{ kind: 'link', from: at, to: at + words.length, words, instead: [] }]
        : [];
    }),
  );
  return found.flat();
};
