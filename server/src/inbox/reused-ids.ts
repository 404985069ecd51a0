import { createHash } from 'node:crypto';
import type { Inbound } from '@porch/contract/doors';
import { cleanMessage, MESSAGE_LONGEST } from '@porch/core/text';
import type { Store } from '../store';

const contentOf = (text: string, files: readonly string[]): string =>
  createHash('sha256')
    .update([cleanMessage(text).slice(0, MESSAGE_LONGEST), ...files].join('\n'))
    .digest('base64url')
    .slice(0, 20);

/**
 * Where writers choose the ids of what they say, one may come again with something else (RFC 6120, 8.1.3: unique within
 * one stream). Such a message is known by that id, by what it says, and by what its server calls it, where it does.
 */
export const createReusedIds = ({ store }: { store: Store }) => {
  const namesOf = ({ networkId, text, coming = [], serverId = '' }: Inbound) => {
    const said = `${networkId} ${contentOf(text, coming)}`;
    return { bySaid: said, byServer: serverId && `${said} ${serverId}`, isByServer: `${said} +` };
  };

  /** Whether an entry says the same; what is no message any more is not taken anew. */
  const saysSame = (said: Inbound, threadId: string, entryId: string | null): boolean => {
    const entry = entryId === null ? null : store.entries.inThread(threadId, entryId);
    if (entry?.kind !== 'visitor-said') return true;
    // Files that were fetched before their message was taken have no names there: its words have to do.
    const isOfBefore = entry.files.length > 0 && entry.coming === undefined;
    const names = isOfBefore ? [] : (said.coming ?? []);
    return contentOf(entry.text, entry.coming ?? []) === contentOf(said.text, names);
  };

  return {
    /** Under which ids of its network a message is kept; whoever names the first means what was said last under it. */
    namesOf: (said: Inbound): string[] => {
      if (said.serverId === undefined) return [said.networkId];
      const { bySaid, byServer, isByServer } = namesOf(said);
      return [said.networkId, ...(byServer ? [byServer, isByServer] : [bySaid])];
    },
    /** In whose thread a message stands already; null: it is new. */
    seen: (said: Inbound): string | null => {
      const at = (name: string) => store.deliveries.seen(said.doorId, name);
      const last = at(said.networkId);
      if (!last || said.serverId === undefined) return last?.threadId ?? null;
      const { bySaid, byServer, isByServer } = namesOf(said);
      const known = at(bySaid) ?? (byServer ? at(byServer) : null);
      if (known) return known.threadId;
      const isOther = byServer !== '' && at(isByServer) !== null;
      return isOther || !saysSame(said, last.threadId, last.entryId) ? null : last.threadId;
    },
  };
};
