import type { Entry } from './entry';
import { isQuiet } from './quiet';

const entry = (kind: Entry['kind'], more: object = {}): Entry =>
  ({
    seq: 1,
    id: 'entry-1',
    conversationId: 'talk-1',
    threadId: 'talk-1',
    at: 0,
    kind,
    ...more,
  }) as Entry;

describe('what only notes what went on around a conversation', () => {
  it.each([
    entry('waypoint'),
    entry('details'),
    entry('consented'),
    entry('turned-soon'),
    entry('door-sign', { text: 'We have it.' }),
    entry('owed', { why: 'note' }),
    entry('owed-done', { memberId: null }),
    entry('mailed', { to: 'wren@post.example' }),
  ])('is $kind', (one) => {
    expect(isQuiet(one)).toBe(true);
  });

  it.each([
    ['what a visitor said', entry('visitor-said')],
    ['what the team said', entry('team-said')],
    ['an answer of a card', entry('door-sign', { card: { id: 'card-1' } })],
    ['where an order is', entry('door-sign', { order: 'QF-1' })],
    ['what was promised by hand', entry('owed', { why: 'hand' })],
    ['what somebody has done', entry('owed-done', { memberId: 'member-1' })],
    ['a mail that did not go', entry('mailed', { failed: 'refused' })],
    ['a mail that was held back', entry('held-back')],
    ['what somebody wrapped up', entry('wrapped-up')],
  ])('is not %s', (_what, one) => {
    expect(isQuiet(one)).toBe(false);
  });
});
