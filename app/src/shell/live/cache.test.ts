import type { Row } from '@porch/contract/entries';
import { type Entry, emptyConversation, fold, groupOf } from '@porch/core/conversation';
import { placeInLine } from '@porch/core/patience';
import { inAll } from '../../../test-kit/stretch';
import { type GroupData, rowAhead, withEntries, withPage, withRows } from './cache';

const said = (id: string, seq: number, at: number): Entry => ({
  kind: 'visitor-said',
  seq,
  id: `message-${seq}`,
  conversationId: id,
  threadId: id,
  at,
  text: `${seq}`,
  files: [],
  note: false,
  page: null,
});

const row = (id: string, ...entries: Entry[]): Row => {
  const state = entries.reduce(fold, emptyConversation);
  return {
    id,
    doorId: 'door-1',
    group: groupOf(state),
    place: placeInLine(state),
    state,
    threads: [],
  };
};

const group = (rows: Row[], next: string | null = null): GroupData => ({ rows, next });
const ids = ({ rows }: GroupData) => rows.map(({ id }) => id);

describe('a group of the line in the cache', () => {
  const first = row('a', said('a', 1, 1_000));
  const second = row('b', said('b', 2, 2_000));
  const third = row('c', said('c', 3, 3_000));

  it('takes a row into its place', () => {
    expect(ids(withRows(group([first, third]), inAll('waiting'), [second]))).toEqual([
      'a',
      'b',
      'c',
    ]);
  });

  it('lets a row go that now stands elsewhere', () => {
    const answered = row('a', said('a', 1, 1_000), {
      kind: 'team-said',
      seq: 9,
      id: 'answer-9',
      conversationId: 'a',
      threadId: 'a',
      at: 9_000,
      way: 'screen',
      memberId: 'm',
      text: 'x',
      files: [],
    });
    expect(ids(withRows(group([first, second]), inAll('waiting'), [answered]))).toEqual(['b']);
    expect(ids(withRows(group([]), inAll('answered'), [answered]))).toEqual(['a']);
  });

  it('ignores a row that is older than what it has', () => {
    const newer = row('a', said('a', 1, 1_000), said('a', 5, 5_000));
    const data = group([newer]);
    expect(withRows(data, inAll('waiting'), [first])).toBe(data);
  });

  it('leaves out a row whose place lies behind what is loaded, and takes it with its page', () => {
    const data = withRows(group([first], '1.a'), inAll('waiting'), [third]);
    expect(ids(data)).toEqual(['a']);
    expect(ids(withPage(data, group([second, third])))).toEqual(['a', 'b', 'c']);
  });

  it('has each row once when pages overlap', () => {
    expect(ids(withPage(group([first, second], 'x'), group([second, third])))).toEqual([
      'a',
      'b',
      'c',
    ]);
  });
});

describe('a row ahead of the server', () => {
  const waiting = row('a', said('a', 1, 1_000));

  it('stands where it will stand', () => {
    const ahead = rowAhead(waiting, { kind: 'wrapped-up', id: 'deed-1', at: 5, memberId: 'm' });
    expect(ahead.group).toBe('wrapped-up');
    const back = rowAhead(ahead, { kind: 'taken-back', id: 'deed-2', at: 6, memberId: 'm' });
    expect(back.group).toBe('waiting');
  });

  it('gives way to whatever the server says next', () => {
    const ahead = rowAhead(waiting, { kind: 'wrapped-up', id: 'deed-1', at: 5, memberId: 'm' });
    const told = row('a', said('a', 1, 1_000), said('a', 2, 2_000));
    expect(ids(withRows(group([]), inAll('waiting'), [told]))).toEqual(['a']);
    expect(ids(withRows(group([ahead]), inAll('wrapped-up'), [told]))).toEqual([]);
  });
});

describe('a roll in the cache', () => {
  it('has each entry once and in order, and only its own', () => {
    const roll = {
      row: row('a', said('a', 2, 2)),
      entries: [said('a', 2, 2)],
      hasOlder: false,
      receipts: [],
    };
    const next = withEntries(roll, [
      said('a', 4, 4),
      said('b', 3, 3),
      said('a', 2, 2),
      said('a', 1, 1),
    ]);
    expect(next.entries.map(({ seq }) => seq)).toEqual([1, 2, 4]);
  });

  it('stays the same object when nothing in it changes', () => {
    const roll = {
      row: row('a', said('a', 2, 2)),
      entries: [said('a', 2, 2)],
      hasOlder: false,
      receipts: [],
    };
    expect(withEntries(roll, [said('b', 9, 9)])).toBe(roll);
  });
});
