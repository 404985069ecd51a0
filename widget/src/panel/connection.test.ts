import type { ToVisitor } from '@porch/contract/visitor';
import { newsOf } from './connection';

const welcome: Extract<ToVisitor, { say: 'welcome' }> = {
  say: 'welcome',
  now: 5,
  lamp: { state: 'lit', until: null },
  entries: [],
  continues: true,
  hasOlder: false,
  reached: { hasSeq: 3, readSeq: 2 },
  details: { name: '', email: '', phone: '', own: {} },
  hasConsented: false,
  seq: 3,
};

const answer = {
  seq: 4,
  id: 'answer-4',
  at: 1,
  text: 'Hi',
  files: [],
  by: 'team' as const,
  name: 'Maren',
  face: null,
};

describe('what is new in a later letter', () => {
  it('is how far the others are and the lamp, and entries when there are any', () => {
    expect(newsOf(welcome).map(({ say }) => say)).toEqual(['reached', 'lamp']);
    expect(newsOf({ ...welcome, entries: [answer], seq: 4 })[0]).toEqual({
      say: 'entries',
      entries: [answer],
      seq: 4,
    });
  });

  it('is all of it when it does not follow what the panel has', () => {
    const anew = { ...welcome, continues: false };
    expect(newsOf(anew)).toEqual([anew]);
    expect(newsOf({ say: 'taken', id: 'message-1' })).toEqual([{ say: 'taken', id: 'message-1' }]);
  });
});
