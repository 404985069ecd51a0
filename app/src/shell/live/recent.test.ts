import type { Entry } from '@porch/core/conversation';
import { inAll } from '../../../test-kit/stretch';
import { rowOf, said } from '../../../test-kit/talk';
import { recent } from './recent';

describe('a page that was asked for before news and arrives after it', () => {
  afterEach(recent.forget);

  it('has the news of a conversation all the same, and not what it left out on purpose', () => {
    recent.note([said(1), said(4), said(5, 'b')], [rowOf(said(3), said(4))]);
    const roll = recent.ontoRoll({
      row: rowOf(said(2), said(3)),
      entries: [said(2), said(3)],
      hasOlder: true,
      receipts: [],
    });
    expect(roll.entries.map(({ seq }) => seq)).toEqual([2, 3, 4]);
    expect(roll.row.state.lastSeq).toBe(4);
  });

  it('has a conversation that came into its group meanwhile, and not one that left it', () => {
    const answered = rowOf(said(1), { ...said(6), kind: 'team-said', memberId: 'm' } as Entry);
    recent.note([], [rowOf(said(7, 'new')), answered]);
    const page = recent.ontoGroup({ rows: [rowOf(said(1))], next: null }, inAll('waiting'));
    expect(page.rows.map(({ id }) => id)).toEqual(['new']);
  });

  it('keeps what is newer in the page than in the news', () => {
    recent.note([], [rowOf(said(1))]);
    const page = recent.ontoGroup(
      { rows: [rowOf(said(1), said(9))], next: null },
      inAll('waiting'),
    );
    expect(page.rows[0]?.state.lastSeq).toBe(9);
  });

  it('has nothing of what was shown ahead of the server and did not come true', () => {
    const putBy: Entry = {
      kind: 'put-by',
      memberId: 'member-0001',
      until: 9,
      seq: 2.5,
      id: 'deed-0001',
      conversationId: 'a',
      threadId: null,
      at: 1,
    };
    recent.note([], [rowOf(said(1), putBy), rowOf(said(1, 'b'))]);
    recent.forgetRow('a');
    const page = { rows: [rowOf(said(1))], next: null };
    expect(recent.ontoGroup(page, inAll('waiting')).rows.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(recent.ontoGroup({ rows: [], next: null }, inAll('put-by')).rows).toEqual([]);
  });
});
