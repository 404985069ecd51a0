import type { Row } from '@porch/contract/entries';
import { inAll } from '../../../test-kit/stretch';
import { rowOf, said } from '../../../test-kit/talk';
import { type GroupData, rowAhead, withEntries, withPage, withRows } from './cache';

const group = (rows: Row[], next: string | null = null): GroupData => ({ rows, next });
const ids = ({ rows }: GroupData) => rows.map(({ id }) => id);

describe('a group of the line in the cache', () => {
  const first = rowOf(said(1));
  const second = rowOf(said(2, 'b'));
  const third = rowOf(said(3, 'c'));

  it('takes no row that stands in other views only', () => {
    const elsewhere = { view: 'of-somebody' as never, group: 'waiting' as const };
    expect(ids(withRows(group([]), elsewhere, [first]))).toEqual([]);
    expect(ids(withRows(group([first]), elsewhere, [rowOf(said(1), said(9))]))).toEqual([]);
  });

  it('takes a row into its place', () => {
    expect(ids(withRows(group([first, third]), inAll('waiting'), [second]))).toEqual([
      'a',
      'b',
      'c',
    ]);
  });

  it('lets a row go that now stands elsewhere', () => {
    const answered = rowOf(said(1), {
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
    const newer = rowOf(said(1), said(5));
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
  const waiting = rowOf(said(1));

  it('stands where it will stand', () => {
    const ahead = rowAhead(waiting, { kind: 'wrapped-up', id: 'deed-1', at: 5, memberId: 'm' });
    expect(ahead.group).toBe('wrapped-up');
    const back = rowAhead(ahead, { kind: 'taken-back', id: 'deed-2', at: 6, memberId: 'm' });
    expect(back.group).toBe('waiting');
  });

  it('gives way to whatever the server says next', () => {
    const ahead = rowAhead(waiting, { kind: 'wrapped-up', id: 'deed-1', at: 5, memberId: 'm' });
    const told = rowOf(said(1), said(2));
    expect(ids(withRows(group([]), inAll('waiting'), [told]))).toEqual(['a']);
    expect(ids(withRows(group([ahead]), inAll('wrapped-up'), [told]))).toEqual([]);
  });
});

describe('a roll in the cache', () => {
  it('has each entry once and in order, and only its own', () => {
    const roll = {
      row: rowOf(said(2)),
      entries: [said(2)],
      hasOlder: false,
      receipts: [],
    };
    const next = withEntries(roll, [said(4), said(3, 'b'), said(2), said(1)]);
    expect(next.entries.map(({ seq }) => seq)).toEqual([1, 2, 4]);
  });

  it('stays the same object when nothing in it changes', () => {
    const roll = {
      row: rowOf(said(2)),
      entries: [said(2)],
      hasOlder: false,
      receipts: [],
    };
    expect(withEntries(roll, [said(9, 'b')])).toBe(roll);
  });
});
