import type { VisitorPage } from '@porch/contract/visitor';
import type { Entry } from '@porch/core/conversation';
import { isListed } from '@porch/core/website';
import { type PersonAt, toVisitorEntry } from '../live/hub';
import { Refused } from '../refused';
import type { ConversationRecord, DoorRecord, Store } from '../store';

/** How many entries a panel is sent at a time; waypoints and the like are left out afterwards. */
const ENTRIES_MOST = 60;

/** What the website door knows and allows. */
export const createWebsite = ({ store, personAt }: { store: Store; personAt: PersonAt }) => {
  const forVisitor = ({ doorId }: ConversationRecord, entries: readonly Entry[]) =>
    entries.flatMap((entry) => toVisitorEntry(entry, doorId, personAt) ?? []);

  const upTo = ({ state }: ConversationRecord) => ({
    seq: state.lastSeq,
    last: store.entries.bySeq(state.lastSeq)?.id ?? null,
  });

  /** Whether an entry of a name stands where a panel had it: after a restored backup it may not. */
  const isTheirs = ({ id }: ConversationRecord, seq: number, last: string): boolean => {
    const entry = store.entries.bySeq(seq);
    return entry?.conversationId === id && entry.id === last;
  };

  return {
    door: (publicId: string): DoorRecord => {
      const door = store.doors.byPublicId(publicId);
      if (!door) throw new Refused('not-found');
      return door;
    },
    /** A door at which somebody still answers. */
    openDoor: (publicId: string): DoorRecord => {
      const door = store.doors.byPublicId(publicId);
      if (!door) throw new Refused('not-found');
      if (door.closedAt !== null) throw new Refused('door-closed');
      return door;
    },
    /** Refuses a website that is not on the door's list. */
    refuseUnlisted: (door: DoorRecord, origin: string): void => {
      if (!isListed(door.sites, origin)) throw new Refused('site-not-listed');
    },
    /** The newest entries before a seq. */
    before: (conversation: ConversationRecord, seq: number): VisitorPage => {
      const roll = store.entries.rollBefore(conversation.id, seq, ENTRIES_MOST + 1);
      return {
        entries: forVisitor(conversation, roll.slice(-ENTRIES_MOST)),
        hasOlder: roll.length > ENTRIES_MOST,
        ...upTo(conversation),
      };
    },
    /** What came after the entry that a panel has last; null when that is too much to replay, or stands elsewhere. */
    since: (
      conversation: ConversationRecord,
      seq: number,
      last: string | null,
    ): VisitorPage | null => {
      if (seq === 0 || seq > conversation.state.lastSeq) return null;
      if (last !== null && !isTheirs(conversation, seq, last)) return null;
      const roll = store.entries.rollSince(conversation.id, seq, ENTRIES_MOST + 1);
      if (roll.length > ENTRIES_MOST) return null;
      return {
        entries: forVisitor(conversation, roll),
        hasOlder: false,
        ...upTo(conversation),
      };
    },
  };
};

export type Website = ReturnType<typeof createWebsite>;
