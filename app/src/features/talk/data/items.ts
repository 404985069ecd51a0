import { type Entry, inOrderSaid, isQuiet } from '@porch/core/conversation';
import { followUpOf, isAskedId } from '@porch/core/promises';
import { isRungLine, type RungLine, withRungLines } from '@porch/core/ringing';
import { dayInWords } from '../../../kit/times';
import type { DeedParcel } from '../../../shell/live/outbox';

/** Something on the roll by itself; where it only notes what went on, it may stand folded with others. */
export type QuietItem =
  | { is: 'entry'; key: string; entry: Entry }
  | { is: 'rung'; key: string; line: RungLine };

/** What the roll shows, from top to bottom. */
export type Item =
  | { is: 'older'; key: string }
  | { is: 'day'; key: string; at: number }
  | QuietItem
  | { is: 'quiet'; key: string; items: readonly QuietItem[] }
  | { is: 'unsent'; key: string; parcel: DeedParcel }
  | { is: 'typing'; key: string };

const toItem = (shown: Entry | RungLine): QuietItem => {
  const key = `${shown.seq}`;
  return isRungLine(shown) ? { is: 'rung', key, line: shown } : { is: 'entry', key, entry: shown };
};

/** Where a file came it stands in its message already; what is owed to somebody who was asked late is in the line. */
const isDrawn = (entry: Entry): boolean => {
  const followUp = followUpOf(entry);
  return entry.kind !== 'file-came' && (followUp === null || !isAskedId(followUp));
};

/** What is on the roll, in the order in which it was said, with a line where a day begins. */
export const withDays = (entries: readonly Entry[], zone: string): Item[] => {
  let day = '';
  const shownOnes = entries.filter(isDrawn);
  return withRungLines(inOrderSaid(shownOnes)).flatMap((shown): Item[] => {
    const its = dayInWords(shown.at, zone);
    const item = toItem(shown);
    if (its === day) return [item];
    day = its;
    return [{ is: 'day', key: `day ${shown.seq}`, at: shown.at }, item];
  });
};

const isQuietItem = (item: Item): item is QuietItem =>
  item.is === 'rung'
    ? // That nobody has looked asks for somebody.
      item.line.looked !== null
    : item.is === 'entry' && isQuiet(item.entry);

/** Whether it is said in fewer words than it has: several, or a round of ringing at whose end somebody looked. */
const isFolded = ([first, ...others]: readonly QuietItem[]): boolean =>
  others.length > 0 || first?.is === 'rung';

/** What went on between two messages as one line, so that what was said stands out. */
export const withQuiet = (items: readonly Item[]): Item[] => {
  const folded: Item[] = [];
  let quiet: QuietItem[] = [];
  const end = (): void => {
    const [first] = quiet;
    if (first && isFolded(quiet))
      folded.push({ is: 'quiet', key: `quiet ${first.key}`, items: quiet });
    else folded.push(...quiet);
    quiet = [];
  };
  for (const item of items) {
    if (isQuietItem(item)) quiet.push(item);
    else {
      end();
      folded.push(item);
    }
  }
  end();
  return folded;
};
