import fc from 'fast-check';
import {
  combine,
  type Entry,
  emptyConversation,
  emptyThread,
  entryKinds,
  fold,
  foldAll,
  foldThread,
  groupOf,
  type Happening,
  isForVisitor,
  isOfTheWhole,
  SCREEN,
  searchableText,
  UNREAD_KEPT,
} from '.';

const minute = 60_000;

/** A roll from what happened, a minute apart, with seqs from one. */
const roll = (...happenings: Happening[]): Entry[] =>
  happenings.map((happening, index) => ({
    ...happening,
    seq: index + 1,
    id: `entry-${index + 1}`,
    conversationId: 'conversation-1',
    threadId: isOfTheWhole(happening.kind) ? null : 'thread-1',
    at: (index + 1) * minute,
  }));

const says = (text: string, note = false): Happening => ({
  kind: 'visitor-said',
  text,
  files: [],
  note,
  page: null,
});
const answers = (text: string): Happening => ({
  kind: 'team-said',
  memberId: 'member-1',
  text,
  files: [],
  way: SCREEN,
});
const by = { memberId: 'member-1' };
const aside = (text: string): Happening => ({ ...says(text), setAside: 'automatic' }) as Happening;

describe('what nobody has to answer', () => {
  it.each<[string, Happening[], string]>([
    ['is done with where it is all that there is', [aside('News')], 'wrapped-up'],
    ['leaves what waits waiting', [says('Hello'), aside('News')], 'waiting'],
    [
      'leaves what is answered answered',
      [says('Hello'), answers('Yes'), aside('News')],
      'answered',
    ],
    [
      'leaves what is put by put by',
      [says('Hello'), { kind: 'put-by', ...by, until: 9 * minute }, aside('News')],
      'put-by',
    ],
    ['stands in the line once a person says something', [aside('News'), says('Hello')], 'waiting'],
  ])('%s', (_what, happenings, group) => {
    expect(groupOf(foldAll(roll(...happenings)))).toBe(group);
  });

  it('is not unread, and is what was said last', () => {
    const state = foldAll(roll(says('Hello'), aside('News')));
    expect(state).toMatchObject({
      unread: [1],
      waitingSince: minute,
      lastWords: 'News',
      saidSeq: 2,
    });
  });

  it('is the same in the fold of its thread', () => {
    const entries = roll(aside('News'), says('Hello'), answers('Yes'), aside('More'));
    const thread = entries.reduce(foldThread, emptyThread('thread-1', 'door-1'));
    expect(combine([thread])).toEqual(foldAll(entries));
  });
});

describe('an answer with something of the shelf', () => {
  const fern = { id: 'thing-000001', kind: 'item' as const, name: 'Fern', lines: ['£14.50'] };
  const shelf = [{ ...fern, link: '', linkWords: '', files: [] }];
  const handsOver = (text: string): Happening => ({ ...answers(text), shelf }) as Happening;

  it('is shown in the line by its words, or by the name of what it brings', () => {
    expect(foldAll(roll(says('Ferns?'), handsOver('Here'))).lastWords).toBe('Here');
    expect(foldAll(roll(says('Ferns?'), handsOver(''))).lastWords).toBe('Fern');
  });

  it('is found by both', () => {
    const [entry] = roll(handsOver('Here'));
    expect(entry && searchableText(entry).split('\n')).toEqual(['Here', 'Fern']);
  });
});

describe('where a conversation stands', () => {
  it.each<[string, Happening[], string]>([
    ['waits after a visitor wrote while the light was lit', [says('Hello')], 'waiting'],
    ['is a note after a visitor wrote while it was not', [says('Hello', true)], 'note'],
    [
      'waits when the visitor of a note writes again to a lit porch',
      [says('a', true), says('b')],
      'waiting',
    ],
    [
      'stays waiting when a note follows what already waits',
      [says('a'), says('b', true)],
      'waiting',
    ],
    ['is answered after the team answered', [says('a'), answers('b')], 'answered'],
    [
      'is wrapped up by hand',
      [says('a'), answers('b'), { kind: 'wrapped-up', ...by }],
      'wrapped-up',
    ],
    [
      'reopens when something new is said',
      [says('a'), { kind: 'wrapped-up', ...by }, says('b')],
      'waiting',
    ],
    ['is put by', [says('a'), { kind: 'put-by', ...by, until: 9 }], 'put-by'],
    [
      'waits again when it comes back by itself',
      [says('a'), answers('b'), { kind: 'put-by', ...by, until: 9 }, { kind: 'returned' }],
      'waiting',
    ],
    [
      'is a note again when a put-by note comes back',
      [says('a', true), { kind: 'put-by', ...by, until: 9 }, { kind: 'returned' }],
      'note',
    ],
    [
      'is where it was after taking back',
      [says('a'), { kind: 'wrapped-up', ...by }, { kind: 'taken-back', ...by }],
      'waiting',
    ],
    [
      'is answered, not put by, when the team answers meanwhile',
      [says('a'), { kind: 'put-by', ...by, until: 9 }, answers('b')],
      'answered',
    ],
  ])('%s', (_name, happenings, group) => {
    expect(groupOf(foldAll(roll(...happenings)))).toBe(group);
  });

  it('keeps the patience of the oldest message without an answer', () => {
    const state = foldAll(roll(says('a'), says('b'), says('c')));
    expect(state.waitingSince).toBe(minute);
  });

  it('starts patience anew with the first message after it was wrapped up', () => {
    const state = foldAll(roll(says('a'), { kind: 'wrapped-up', ...by }, says('b')));
    expect(state.waitingSince).toBe(3 * minute);
  });

  it('ignores a return that nothing was put by for', () => {
    const state = foldAll(roll(says('a'), answers('b'), { kind: 'returned' }));
    expect(groupOf(state)).toBe('answered');
  });
});

describe('what is unread', () => {
  it('counts what the visitor said since the team read', () => {
    const state = foldAll(
      roll(says('a'), { kind: 'team-read', ...by, upTo: 1 }, says('b'), says('c')),
    );
    expect(state.unread).toEqual([3, 4]);
  });

  it('keeps what arrived after the point that was read', () => {
    const state = foldAll(roll(says('a'), says('b'), { kind: 'team-read', ...by, upTo: 1 }));
    expect(state.unread).toEqual([2]);
  });

  it('is bounded however much is said', () => {
    const many = Array.from({ length: UNREAD_KEPT + 50 }, () => says('again'));
    expect(foldAll(roll(...many)).unread).toHaveLength(UNREAD_KEPT);
  });

  it('is nothing after an answer', () => {
    expect(foldAll(roll(says('a'), answers('b'))).unread).toEqual([]);
  });
});

describe('who it is', () => {
  it('keeps a detail until it is given anew, and takes it back when it is emptied', () => {
    const state = foldAll(
      roll(
        { kind: 'details', name: 'Wren', email: 'wren@post.example' },
        { kind: 'details', phone: '07700 900001' },
        { kind: 'details', email: '' },
      ),
    );
    expect(state).toMatchObject({ name: 'Wren', email: '', phone: '07700 900001' });
  });
});

const anyHappening: fc.Arbitrary<Happening> = fc.oneof(
  fc
    .record({ text: fc.string({ maxLength: 20 }), note: fc.boolean() })
    .map(({ text, note }) => says(text, note)),
  fc.string({ maxLength: 20 }).map(answers),
  fc.integer({ min: 0, max: 40 }).map((upTo): Happening => ({ kind: 'team-read', ...by, upTo })),
  fc.integer({ min: 0, max: 40 }).map((upTo): Happening => ({ kind: 'visitor-read', upTo })),
  fc.constantFrom<Happening>(
    { kind: 'here' },
    { kind: 'gone' },
    { kind: 'returned' },
    { kind: 'wrapped-up', ...by },
    { kind: 'taken-back', ...by },
    { kind: 'put-by', ...by, until: 5 },
  ),
);

describe('the fold, whatever happened', () => {
  it('is the same when entries are told twice', () => {
    fc.assert(
      fc.property(fc.array(anyHappening, { maxLength: 40 }), (happenings) => {
        const entries = roll(...happenings);
        const twice = entries.flatMap((entry) => [entry, entry]);
        expect(twice.reduce(fold, emptyConversation)).toEqual(foldAll(entries));
      }),
    );
  });

  it('is the same when it goes on from any point as when it starts over', () => {
    fc.assert(
      fc.property(fc.array(anyHappening, { maxLength: 30 }), fc.nat(30), (happenings, cut) => {
        const entries = roll(...happenings);
        const half = foldAll(entries.slice(0, cut));
        expect(entries.slice(cut).reduce(fold, half)).toEqual(foldAll(entries));
      }),
    );
  });

  it('owes an answer exactly while the visitor spoke last, but for what came back', () => {
    fc.assert(
      fc.property(fc.array(anyHappening, { minLength: 1, maxLength: 30 }), (happenings) => {
        const state = foldAll(roll(...happenings));
        if (state.aside !== null || state.cameBack) return;
        if (state.lastBy === 'team') expect(state.waitingSince).toBeNull();
      }),
    );
  });
});

describe('the kinds of entries', () => {
  it('shows a visitor only what was said, by either side or by the door', () => {
    expect(entryKinds.length).toBeGreaterThan(10);
    expect(entryKinds.filter(isForVisitor)).toEqual(['visitor-said', 'team-said', 'door-sign']);
  });
});
