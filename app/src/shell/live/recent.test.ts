import type { Row } from '@porch/contract/entries';
import { type Entry, emptyConversation, fold, groupOf } from '@porch/core/conversation';
import { placeInLine } from '@porch/core/patience';
import { inAll } from '../../../test-kit/stretch';
import { recent } from './recent';

const said = (seq: number, conversationId = 'a'): Entry => ({
  kind: 'visitor-said',
  seq,
  id: `message-${seq}`,
  conversationId,
  threadId: conversationId,
  at: seq * 1_000,
  text: `${seq}`,
  files: [],
  note: false,
  page: null,
});

const row = (...entries: Entry[]): Row => {
  const state = entries.reduce(fold, emptyConversation);
  const id = entries[0]?.conversationId ?? 'a';
  return {
    id,
    doorId: 'door-1',
    group: groupOf(state),
    place: placeInLine(state),
    state,
    threads: [],
  };
};

describe('a page that was asked for before news and arrives after it', () => {
  afterEach(recent.forget);

  it('has the news of a conversation all the same, and not what it left out on purpose', () => {
    recent.note([said(1), said(4), said(5, 'b')], [row(said(3), said(4))]);
    const roll = recent.ontoRoll({
      row: row(said(2), said(3)),
      entries: [said(2), said(3)],
      hasOlder: true,
      receipts: [],
    });
    expect(roll.entries.map(({ seq }) => seq)).toEqual([2, 3, 4]);
    expect(roll.row.state.lastSeq).toBe(4);
  });

  it('has a conversation that came into its group meanwhile, and not one that left it', () => {
    const answered = row(said(1), { ...said(6), kind: 'team-said', memberId: 'm' } as Entry);
    recent.note([], [row(said(7, 'new')), answered]);
    const page = recent.ontoGroup({ rows: [row(said(1))], next: null }, inAll('waiting'));
    expect(page.rows.map(({ id }) => id)).toEqual(['new']);
  });

  it('keeps what is newer in the page than in the news', () => {
    recent.note([], [row(said(1))]);
    const page = recent.ontoGroup({ rows: [row(said(1), said(9))], next: null }, inAll('waiting'));
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
    recent.note([], [row(said(1), putBy), row(said(1, 'b'))]);
    recent.forgetRow('a');
    const page = { rows: [row(said(1))], next: null };
    expect(recent.ontoGroup(page, inAll('waiting')).rows.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(recent.ontoGroup({ rows: [], next: null }, inAll('put-by')).rows).toEqual([]);
  });
});
