import type { Row } from '@porch/contract/entries';
import type { RollPage } from '@porch/contract/line';
import { type Entry, emptyConversation } from '@porch/core/conversation';
import { clientForTest } from '../../../test-kit/client';
import { inAll } from '../../../test-kit/stretch';
import { applyNews } from './apply';
import { type GroupData, rollKey, stretchKey } from './cache';
import { recent } from './recent';

const row = (id: string, lastSeq: number): Row => ({
  id,
  doorId: 'door-1',
  group: 'waiting',
  place: lastSeq,
  dueAt: null,
  state: { ...emptyConversation, lastSeq, waitingSince: 1 },
  threads: [],
});

const filed = { id: 'deed-0001', conversationId: 'a', threadId: null, at: 1 };

const known = (ids: readonly string[]) => {
  const client = clientForTest();
  const rows = ids.map((id, index) => row(id, index + 1));
  client.setQueryData<GroupData>(stretchKey(inAll('waiting')), { rows, next: null });
  for (const one of rows) {
    client.setQueryData<RollPage>(rollKey(one.id), {
      row: one,
      entries: [],
      hasOlder: false,
      receipts: [],
    });
  }
  const ofGroup = () =>
    client.getQueryData<GroupData>(stretchKey(inAll('waiting')))?.rows.map(({ id }) => id);
  const isStale = (id: string) => client.getQueryState(rollKey(id))?.isInvalidated;
  return { client, ofGroup, isStale };
};

describe('the line on this device', () => {
  afterEach(recent.forget);

  it('shows two conversations that were put together as one, and reads its roll anew', () => {
    const { client, ofGroup, isStale } = known(['a', 'b', 'c']);
    const joined: Entry = {
      ...filed,
      seq: 9,
      kind: 'joined',
      memberId: 'm',
      threadIds: ['b'],
      from: 'b',
    };
    recent.note([], [row('b', 2)]);
    applyNews(client, [joined], [row('a', 9)]);
    expect(ofGroup()).toEqual(['c', 'a']);
    expect([isStale('a'), isStale('b'), isStale('c')]).toEqual([true, true, false]);
    // A page that was on its way knows of it as well.
    const page = recent.ontoGroup({ rows: [row('a', 1)], next: null }, inAll('waiting'));
    expect(page.rows.map(({ id }) => id)).toEqual(['a']);
  });

  it('shows both of them where they were parted', () => {
    const { client, ofGroup, isStale } = known(['a']);
    const threadIds = ['b'];
    const joined = { ...filed, kind: 'joined' as const, memberId: 'm', threadIds, from: 'b' };
    const parted = { ...filed, kind: 'parted' as const, memberId: 'm', threadIds };
    const entries: Entry[] = [
      { ...joined, seq: 7 },
      { ...parted, seq: 8, other: 'b', side: 'stays' },
      { ...parted, seq: 9, conversationId: 'b', other: 'a', side: 'goes' },
    ];
    applyNews(client, entries, [row('a', 8), row('b', 9)]);
    expect(ofGroup()).toEqual(['a', 'b']);
    expect(isStale('a')).toBe(true);
  });
});
