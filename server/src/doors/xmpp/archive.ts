import { type Element, xml } from '@xmpp/client';
import { newId } from '../../security/tokens';
import type { Session } from './session';
import { type Came, cameFromArchive, ns } from './stanzas';

const PAGE_MOST = 50;
const DAY_MS = 24 * 3_600_000;
/** Where a server has forgotten from where on we know nothing, it is asked for so much. */
const FORGOTTEN_MS = 7 * DAY_MS;

const SINCE = 'since ';

/** Where nothing was read yet: from now on. UTC epoch milliseconds. */
export const markAt = (now: number): string => `${SINCE}${new Date(now).toISOString()}`;

/** Whether a server keeps what is said to somebody (XEP-0313). */
export const hasArchive = async (session: Session, own: string): Promise<boolean> => {
  const iq = xml('iq', { type: 'get', to: own }, xml('query', { xmlns: ns.disco }));
  const answer = await session.ask(iq).catch((error) => {
    if (error.name !== 'StanzaError') throw error;
    return null;
  });
  const features = answer?.getChild('query', ns.disco)?.getChildren('feature') ?? [];
  return features.some(({ attrs }) => attrs.var === ns.archive);
};

/** A message that the server has kept, and under which name. */
type Kept = Came & { archiveId: string };

const field = (name: string, value: string, type?: string): Element =>
  xml('field', { var: name, type }, xml('value', {}, value));

/**
 * Reads what a server has kept from a mark on, page by page, and hands each page to `take`. `hear` is told of
 * everything that comes meanwhile by whoever made the session, which finds what is meant for this reading.
 */
export const createArchive = (session: Session, own: string, now: () => number) => {
  let asking: { id: string; came: Kept[] } | null = null;

  const page = async (mark: string): Promise<{ came: Kept[]; isLast: boolean }> => {
    const mine = { id: newId(), came: [] as Kept[] };
    asking = mine;
    const isSince = mark.startsWith(SINCE);
    const iq = xml(
      'iq',
      { type: 'set', to: own },
      xml(
        'query',
        { xmlns: ns.archive, queryid: mine.id },
        xml(
          'x',
          { xmlns: 'jabber:x:data', type: 'submit' },
          field('FORM_TYPE', ns.archive, 'hidden'),
          ...(isSince ? [field('start', mark.slice(SINCE.length))] : []),
        ),
        xml(
          'set',
          { xmlns: ns.pages },
          xml('max', {}, `${PAGE_MOST}`),
          ...(isSince ? [] : [xml('after', {}, mark)]),
        ),
      ),
    );
    try {
      const answer = await session.ask(iq);
      const isLast = answer.getChild('fin', ns.archive)?.attrs.complete === 'true';
      return { came: mine.came, isLast: isLast || mine.came.length === 0 };
    } finally {
      asking = null;
    }
  };

  return {
    /** Whether a stanza is of what is just read. */
    hear: (stanza: Element): boolean => {
      const came = asking && cameFromArchive(stanza, own, asking.id);
      if (!asking || !came) return false;
      asking.came.push(came);
      return true;
    },
    /** Gives the mark up to which was read. */
    read: async (
      from: string,
      take: (came: readonly Came[], mark: string) => Promise<void>,
    ): Promise<string> => {
      let mark = from;
      for (;;) {
        let read: Awaited<ReturnType<typeof page>>;
        try {
          read = await page(mark);
        } catch (error) {
          const isForgotten =
            (error as { condition?: string }).condition === 'item-not-found' &&
            !mark.startsWith(SINCE);
          if (!isForgotten) throw error;
          mark = markAt(now() - FORGOTTEN_MS);
          continue;
        }
        mark = read.came.at(-1)?.archiveId ?? mark;
        await take(read.came, mark);
        if (read.isLast) return mark;
      }
    },
  };
};
