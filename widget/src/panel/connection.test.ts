import type { ToVisitor } from '@porch/contract/visitor';
import { answer } from '../../test-kit/answer';
import { newsOf } from './connection';

const welcome: Extract<ToVisitor, { say: 'welcome' }> = {
  say: 'welcome',
  now: 5,
  lamp: { state: 'lit', until: null },
  usual: null,
  opens: [],
  entries: [],
  continues: true,
  hasOlder: false,
  reached: { hasSeq: 3, readSeq: 2 },
  details: { name: '', email: '', phone: '', own: {} },
  hasConsented: false,
  mails: true,
  seq: 3,
  last: 'entry-id-0003',
};

describe('what is new in a later letter', () => {
  it('is how far the others are and the lamp, and entries when there are any', () => {
    expect(newsOf(welcome).map(({ say }) => say)).toEqual(['reached', 'lamp']);
    expect(newsOf({ ...welcome, entries: [answer(4)], seq: 4 })[0]).toEqual({
      say: 'entries',
      entries: [answer(4)],
      seq: 4,
      last: 'entry-id-0003',
    });
  });

  it('is all of it when it does not follow what the panel has', () => {
    const anew = { ...welcome, continues: false };
    expect(newsOf(anew)).toEqual([anew]);
    expect(newsOf({ say: 'taken', id: 'message-1' })).toEqual([{ say: 'taken', id: 'message-1' }]);
  });
});
