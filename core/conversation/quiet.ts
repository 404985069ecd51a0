import type { Entry } from './entry';

/**
 * Whether an entry only notes what went on around a conversation, and asks nobody for anything: a page that was looked
 * at, what was left of themselves, what the door said by itself, an answer that is due by itself or went out by mail.
 */
export const isQuiet = (entry: Entry): boolean => {
  switch (entry.kind) {
    case 'waypoint':
    case 'details':
    case 'consented':
    case 'turned-soon':
      return true;
    case 'door-sign':
      return !entry.card && !entry.order && !entry.greeting;
    case 'owed':
      return entry.why !== 'hand';
    case 'owed-done':
      return !entry.memberId;
    case 'mailed':
      return entry.failed === undefined;
    default:
      return false;
  }
};
