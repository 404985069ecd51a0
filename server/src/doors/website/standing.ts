import type { VisitorPage } from '@porch/contract/visitor';
import type { Entry, ThreadState } from '@porch/core/conversation';
import { isListed } from '@porch/core/website';
import { type PersonAt, toVisitorEntry } from '../../live/hub';
import { Refused } from '../../refused';
import type { DoorRecord, Store } from '../../store';
import { sitesOf, WEBSITE } from './kind';

/** How many entries a panel is sent at a time; waypoints and the like are left out afterwards. */
const ENTRIES_MOST = 60;

/** What the website door knows and allows. */
export const createWebsite = ({ store, personAt }: { store: Store; personAt: PersonAt }) => {
  const forVisitor = ({ doorId }: ThreadState, entries: readonly Entry[]) =>
    entries.flatMap((entry) => toVisitorEntry(entry, doorId, personAt) ?? []);

  const upTo = ({ lastSeq }: ThreadState) => ({
    seq: lastSeq,
    last: store.entries.bySeq(lastSeq)?.id ?? null,
  });

  /** Whether an entry of a name stands where a panel had it: after a restored backup it may not. */
  const isTheirs = ({ threadId }: ThreadState, seq: number, last: string): boolean => {
    const entry = store.entries.bySeq(seq);
    return entry?.id === last && (entry.threadId ?? threadId) === threadId;
  };

  return {
    door: (publicId: string): DoorRecord => {
      const door = store.doors.byPublicId(publicId);
      if (door?.kind !== WEBSITE) throw new Refused('not-found');
      return door;
    },
    /** A door at which somebody still answers. */
    openDoor: (publicId: string): DoorRecord => {
      const door = store.doors.byPublicId(publicId);
      if (door?.kind !== WEBSITE) throw new Refused('not-found');
      if (door.closedAt !== null) throw new Refused('door-closed');
      return door;
    },
    /** Refuses a website that is not on the door's list. */
    refuseUnlisted: (door: DoorRecord, origin: string): void => {
      if (!isListed(sitesOf(door), origin)) throw new Refused('site-not-listed');
    },
    /** The newest entries before a seq. */
    before: (thread: ThreadState, seq: number): VisitorPage => {
      const roll = store.entries.threadBefore(thread.threadId, seq, ENTRIES_MOST + 1);
      return {
        entries: forVisitor(thread, roll.slice(-ENTRIES_MOST)),
        hasOlder: roll.length > ENTRIES_MOST,
        ...upTo(thread),
      };
    },
    /** What came after the entry that a panel has last; null when that is too much to replay, or stands elsewhere. */
    since: (thread: ThreadState, seq: number, last: string | null): VisitorPage | null => {
      if (seq === 0 || seq > thread.lastSeq) return null;
      if (last !== null && !isTheirs(thread, seq, last)) return null;
      const roll = store.entries.threadSince(thread.threadId, seq, ENTRIES_MOST + 1);
      if (roll.length > ENTRIES_MOST) return null;
      return {
        entries: forVisitor(thread, roll),
        hasOlder: false,
        ...upTo(thread),
      };
    },
  };
};

export type Website = ReturnType<typeof createWebsite>;
