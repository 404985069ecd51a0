import type { ToTeam } from '@porch/contract/live';
import { createDigest } from './socket';

const welcome: Extract<ToTeam, { say: 'welcome' }> = {
  say: 'welcome',
  now: 5,
  lamp: {
    state: 'lit',
    until: null,
    why: 'hours',
    setting: { state: 'by-hours', until: null },
    hasHours: false,
    isOpen: true,
    shutsNext: null,
    opensNext: null,
    opensTomorrow: null,
    ask: null,
    ended: null,
  },
  houseMark: 'first',
  entries: [],
  rows: [],
  counts: { waiting: 0, note: 0, answered: 0, 'put-by': 0, 'wrapped-up': 0 },
  seq: 3,
  last: 'entry-id-0003',
  isTooMuch: false,
};
const saysOf = (messages: ToTeam[]): string[] => messages.map(({ say }) => say);

describe('what a device is told by later letters', () => {
  it('is that the house is another, once', () => {
    const { note, newsOf } = createDigest();
    note(welcome);
    expect(saysOf(newsOf(welcome))).toEqual(['lamp']);
    expect(saysOf(newsOf({ ...welcome, houseMark: 'second' }))).toEqual(['lamp', 'house']);
    expect(saysOf(newsOf({ ...welcome, houseMark: 'second' }))).toEqual(['lamp']);
  });

  it('is all of it when too much was missed', () => {
    const { note, newsOf } = createDigest();
    note(welcome);
    const missed = { ...welcome, isTooMuch: true };
    expect(newsOf(missed)).toEqual([missed]);
    expect(saysOf(newsOf({ ...missed, houseMark: 'second' }))).toEqual(['welcome', 'house']);
  });

  it('is anything else as it is', () => {
    expect(createDigest().newsOf({ say: 'pulse' })).toEqual([{ say: 'pulse' }]);
  });
});
