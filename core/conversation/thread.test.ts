import {
  combine,
  type Entry,
  emptyConversation,
  emptyThread,
  foldAll,
  foldThread,
  groupOf,
  type Happening,
  isOfTheWhole,
  SCREEN,
  type ThreadState,
  threadWrittenLast,
} from '.';

const minute = 60_000;
const by = { memberId: 'member-1' };

interface Told {
  /** Who said it, or to whom it was said; null for what concerns the whole. */
  of: string | null;
  happening: Happening;
}

const says = (of: string, note = false): Told => ({
  of,
  happening: { kind: 'visitor-said', text: of, files: [], note, page: null },
});
const answers = (of: string): Told => ({
  of,
  happening: { kind: 'team-said', ...by, text: 'Yes', files: [], way: SCREEN },
});
const done = (happening: Happening): Told => ({ of: null, happening });

/** What came one after the other, a minute apart, with seqs from one. */
const roll = (told: readonly Told[]): Entry[] =>
  told.map(({ of, happening }, index) => ({
    ...happening,
    seq: index + 1,
    id: `entry-${index + 1}`,
    conversationId: 'conversation-1',
    threadId: isOfTheWhole(happening.kind) ? null : of,
    at: (index + 1) * minute,
  }));

/** Two threads that stood together all the time. */
const together = (...told: Told[]): ThreadState[] =>
  ['a', 'b'].map((id) => roll(told).reduce(foldThread, emptyThread(id, `door-${id}`)));

const groupTogether = (...told: Told[]) => groupOf(combine(together(...told)));

describe('threads that stand together', () => {
  it.each<[string, Told[], string]>([
    ['waits where either of them waits', [says('a'), answers('a'), says('b')], 'waiting'],
    ['is answered by an answer to either', [says('a'), says('b'), answers('a')], 'answered'],
    ['waits again when one says more', [says('a'), says('b'), answers('a'), says('b')], 'waiting'],
    ['is a note while all that is owed are notes', [says('a', true), says('b', true)], 'note'],
    ['waits where one of them is no note', [says('a', true), says('b')], 'waiting'],
    [
      'is a note again after an answer elsewhere',
      [says('b'), answers('a'), says('b', true)],
      'note',
    ],
    [
      'is put by as a whole',
      [says('a'), says('b'), done({ kind: 'put-by', ...by, until: 5 })],
      'put-by',
    ],
    [
      'is put by no more after an answer to either',
      [says('a'), says('b'), done({ kind: 'put-by', ...by, until: 5 }), answers('b')],
      'answered',
    ],
    [
      'comes back as a whole',
      [
        says('a'),
        says('b'),
        answers('a'),
        done({ kind: 'put-by', ...by, until: 5 }),
        done({ kind: 'returned' }),
      ],
      'waiting',
    ],
    [
      'is answered again after taking back what was wrapped up when it was answered',
      [
        says('b'),
        says('a'),
        answers('a'),
        done({ kind: 'wrapped-up', ...by }),
        done({ kind: 'taken-back', ...by }),
      ],
      'answered',
    ],
  ])('%s', (_name, told, group) => {
    expect(groupTogether(...told)).toBe(group);
  });

  it('owe since the first thing that was said after the last answer', () => {
    const state = combine(together(says('b'), answers('a'), says('b'), says('b')));
    expect(state.waitingSince).toBe(3 * minute);
    expect(state.unread).toEqual([3, 4]);
  });

  it('say who it is by what was said last, in whichever of them', () => {
    const state = combine(
      together(
        { of: 'a', happening: { kind: 'details', name: 'Wren', email: 'wren@post.example' } },
        { of: 'b', happening: { kind: 'details', name: 'Wren A.', phone: '+447700900123' } },
        { of: 'b', happening: { kind: 'details', email: '' } },
        {
          of: 'a',
          happening: { kind: 'waypoint', page: { url: 'https://x.example/', title: '' } },
        },
      ),
    );
    expect(state).toMatchObject({ name: 'Wren A.', email: '', phone: '+447700900123' });
    expect(state.page?.url).toBe('https://x.example/');
  });

  it('are both what they were when they stand alone', () => {
    const [a, b] = together(says('a'), says('b'), answers('a'));
    expect(groupOf(combine(a ? [a] : []))).toBe('answered');
    expect(groupOf(combine(b ? [b] : []))).toBe('waiting');
    expect(combine(b ? [b] : []).waitingSince).toBe(2 * minute);
  });

  it('go out by the one that was written in last', () => {
    expect(threadWrittenLast(together(says('a'), says('b')))?.threadId).toBe('b');
    expect(threadWrittenLast([])).toBeNull();
  });
});

describe('a thread by itself', () => {
  it('comes to what all of its entries come to', () => {
    const told = [says('a'), answers('a'), done({ kind: 'wrapped-up', ...by }), says('a', true)];
    const [a] = together(...told);
    expect(combine(a ? [a] : [])).toEqual(foldAll(roll(told)));
    expect(combine([])).toEqual(emptyConversation);
  });

  it('is the same when entries are told twice, also those of others', () => {
    const entries = roll([says('b'), answers('a'), says('b'), answers('a'), says('b', true)]);
    const twice = entries.flatMap((entry) => [entry, entry]);
    const b = emptyThread('b', 'door-b');
    expect(twice.reduce(foldThread, b)).toEqual(entries.reduce(foldThread, b));
  });
});
