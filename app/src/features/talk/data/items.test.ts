import type { Entry } from '@porch/core/conversation';
import { withDays, withQuiet } from './items';

const zone = 'Europe/London';
const noon = Date.UTC(2026, 10, 12, 12, 0);
const minute = 60_000;

let seq = 0;
const entry = (kind: Entry['kind'], more: object = {}): Entry => {
  seq += 1;
  return {
    seq,
    id: `entry-${seq}`,
    conversationId: 'talk-1',
    threadId: 'talk-1',
    at: noon + seq * minute,
    kind,
    files: [],
    text: '',
    ...more,
  } as unknown as Entry;
};

const shown = (...entries: Entry[]): string[] =>
  withQuiet(withDays(entries, zone)).map((item) =>
    item.is === 'entry'
      ? item.entry.kind
      : item.is === 'quiet'
        ? `quiet ${item.items.map((one) => (one.is === 'entry' ? one.entry.kind : one.is)).join(' ')}`
        : item.is,
  );

describe('what the roll shows', () => {
  beforeEach(() => {
    seq = 0;
  });

  it('has what went on between two messages in one line', () => {
    expect(
      shown(
        entry('visitor-said'),
        entry('door-sign'),
        entry('details'),
        entry('rang', { memberId: 'maren', by: 'push', cause: 'first' }),
        entry('looked', { memberId: 'maren' }),
        entry('team-said'),
        entry('waypoint'),
      ),
    ).toEqual(['day', 'visitor-said', 'quiet door-sign details rung', 'team-said', 'waypoint']);
  });

  it('folds a round of ringing once somebody has looked, and shows it whole until then', () => {
    const rang = entry('rang', { memberId: 'maren', by: 'push', cause: 'first' });
    expect(shown(entry('visitor-said'), entry('details'), rang)).toEqual([
      'day',
      'visitor-said',
      'details',
      'rung',
    ]);
    expect(shown(entry('visitor-said'), rang, entry('looked', { memberId: 'tobias' }))).toEqual([
      'day',
      'visitor-said',
      'quiet rung',
    ]);
  });

  it('folds nothing over the end of a day, and nothing that asks somebody for something', () => {
    expect(
      shown(
        entry('mailed', { failed: 'refused', to: 'x@y.example' }),
        entry('owed', { why: 'hand', followUpId: 'promise-1' }),
        entry('details'),
        entry('waypoint', { at: noon + 24 * 60 * minute }),
      ),
    ).toEqual(['day', 'mailed', 'owed', 'details', 'day', 'waypoint']);
  });
});
