import type { Entry, HappeningKind } from '@porch/core/conversation';
import { emptyConversation, entryKinds } from '@porch/core/conversation';
import { EntrySchema, KeptEntrySchema, RowSchema, StateSchema } from '.';

/** Every field that there is, none left out: the compiler asks for each. */
type Whole<One> = { [Field in keyof One]-?: One[Field] };
type WholeEntries = { [Kind in HappeningKind]: Whole<Extract<Entry, { kind: Kind }>> };

const filed = {
  seq: 7,
  id: 'entry-id-0001',
  conversationId: 'conversation-1',
  threadId: 'thread-id-0001',
  at: 1_794_477_600_000,
};
const memberId = 'member-id-0001';
const owed = { what: 'The pots', dueAt: 5, remindAt: null, whose: null };
const page = { url: 'https://quillfern.example/ferns', title: 'Ferns' };
const files = [
  {
    id: 'file-id-00001',
    name: 'fern.jpg',
    type: 'image/jpeg',
    sizeBytes: 9,
    picture: { width: 3, height: 4 },
  },
];

const whole: WholeEntries = {
  'visitor-said': {
    ...filed,
    kind: 'visitor-said',
    text: 'Hello',
    files,
    note: true,
    page,
    zone: 'Europe/Lisbon',
    language: 'pt',
    saidAt: 1_800_000_000_000,
    networkAt: 1_800_000_000_000,
    order: 7,
    missing: ['leaf.jpg'],
    coming: ['stem.jpg'],
    call: { seconds: 12 },
    callBack: { phone: '+447700900123', at: 1_800_000_000_000 },
    isMail: true,
    hasRest: true,
    via: 'no-reply@forms.example',
    subject: 'Two ferns',
    pictures: 3,
    setAside: 'automatic',
    tapped: { card: 'card-id-00001', passedTo: memberId },
  },
  'file-came': {
    ...filed,
    kind: 'file-came',
    of: 7,
    place: 0,
    file: files[0] ?? null,
    canRetry: true,
  },
  'team-said': {
    ...filed,
    kind: 'team-said',
    memberId,
    text: 'Hi',
    files,
    way: 'screen',
    picked: { kind: 'reply', id: 'reply-000001' },
    shelf: [
      {
        id: 'shelf-id-00001',
        kind: 'item',
        name: 'Monstera',
        lines: ['£24.50'],
        link: 'https://quillfern.example/monstera',
        linkWords: '',
        files: [],
      },
    ],
  },
  details: {
    ...filed,
    kind: 'details',
    name: 'Wren',
    email: 'wren@post.example',
    phone: '+447700900123',
    own: [{ id: 'question-0001', label: 'Pot size', value: '12 cm' }],
  },
  waypoint: { ...filed, kind: 'waypoint', page },
  consented: {
    ...filed,
    kind: 'consented',
    text: 'I agree',
    link: 'https://quillfern.example/privacy',
  },
  stopped: { ...filed, kind: 'stopped', isStopped: true, word: 'STOP' },
  here: { ...filed, kind: 'here' },
  gone: { ...filed, kind: 'gone' },
  'visitor-has': { ...filed, kind: 'visitor-has', upTo: 6 },
  'visitor-read': { ...filed, kind: 'visitor-read', upTo: 6 },
  'team-read': { ...filed, kind: 'team-read', memberId, upTo: 6 },
  'wrapped-up': { ...filed, kind: 'wrapped-up', memberId },
  'put-by': { ...filed, kind: 'put-by', memberId, until: 1_794_481_200_000 },
  'taken-back': { ...filed, kind: 'taken-back', memberId },
  returned: { ...filed, kind: 'returned' },
  joined: {
    ...filed,
    kind: 'joined',
    memberId,
    threadIds: ['thread-id-0002'],
    from: 'conversation-2',
    byCode: true,
  },
  parted: {
    ...filed,
    kind: 'parted',
    memberId,
    threadIds: ['thread-id-0002'],
    other: 'conversation-2',
    side: 'stays',
  },
  receipt: { ...filed, kind: 'receipt', of: 3, step: 'failed', why: 'no such address' },
  rang: { ...filed, kind: 'rang', memberId, by: 'mail', failed: 'push-gone' },
  looked: { ...filed, kind: 'looked', memberId },
  'turned-soon': { ...filed, kind: 'turned-soon', until: 1_800_000_000_000 },
  'door-sign': {
    ...filed,
    kind: 'door-sign',
    text: 'We have it',
    until: null,
    isHello: true,
    greeting: { id: 'greeting-0001', memberId },
    isTried: true,
    order: 'QF-1101',
    card: {
      id: 'card-id-00001',
      link: 'https://quillfern.example/post',
      files,
      offers: [{ id: 'card-id-00002', question: 'How much is it?' }],
      asks: { field: 'own', label: 'Postcode' },
    },
  },
  mailed: { ...filed, kind: 'mailed', of: [3], to: 'wren@post.example', failed: 'no-mailbox' },
  'mail-stopped': { ...filed, kind: 'mail-stopped', address: 'wren@post.example' },
  owed: { ...filed, kind: 'owed', memberId: null, why: 'note', ...owed },
  'owed-changed': { ...filed, kind: 'owed-changed', of: 'owed-id-0001', memberId: null, ...owed },
  'owed-done': { ...filed, kind: 'owed-done', of: 'owed-id-0001', memberId: null },
  'owed-undone': { ...filed, kind: 'owed-undone', of: 'owed-id-0001', memberId: 'member-id-01' },
  'visitor-changed': {
    ...filed,
    kind: 'visitor-changed',
    of: 3,
    saidAt: 1_800_000_000_000,
    text: 'Two',
  },
  'visitor-withdrew': { ...filed, kind: 'visitor-withdrew', of: 3, saidAt: 1_800_000_000_000 },
  'held-back': {
    ...filed,
    kind: 'held-back',
    why: 'automatic',
    from: 'a@post.example',
    says: 'No',
    isVisitors: true,
  },
  'held-decided': {
    ...filed,
    kind: 'held-decided',
    of: 'held-id-00001',
    memberId,
    isTheirs: true,
  },
  bygone: { ...filed, kind: 'bygone', was: 'chimed' },
};

describe('an entry that crosses the wire', () => {
  it.each(entryKinds)('arrives as it left, with every field that %s has', (kind) => {
    expect(EntrySchema.parse(whole[kind])).toEqual(whole[kind]);
  });

  it('is of a kind that stands here, whatever kinds there will be', () => {
    expect(Object.keys(whole).sort()).toEqual([...entryKinds].sort());
  });
});

describe('a row that crosses the wire', () => {
  it('arrives as it left, with every field of the fold', () => {
    const row = {
      id: 'conversation-1',
      doorId: 'door-id-00001',
      group: 'waiting',
      place: 3,
      dueAt: 3,
      state: {
        ...emptyConversation,
        own: [{ id: 'question-0001', label: 'Pot size', value: '12 cm' }],
        page,
        zone: 'Europe/Lisbon',
        language: 'pt',
        aside: 'put-by',
        putByUntil: 5,
        waitingSince: 4,
        lastBy: 'team',
        movedAt: 3,
        unread: [1, 2],
      },
      threads: [
        {
          id: 'thread-id-0001',
          doorId: 'door-id-00001',
          name: 'Wren',
          email: 'wren@post.example',
          heardAt: null,
          isStopped: true,
          isByCode: false,
          isMailStopped: true,
          lastAt: 3,
          isHere: true,
          movedAt: null,
          visitorHasSeq: 5,
          visitorReadSeq: 4,
        },
      ],
    };
    expect(RowSchema.parse(row)).toEqual(row);
    expect(StateSchema.parse(row.state)).toEqual(row.state);
  });
});

describe('what was kept by another program', () => {
  it('goes out as it is: a field more or less, or a kind that is not known, is no reason to lose it', () => {
    const entry = { ...filed, kind: 'chimed', loudness: 3 };
    expect(KeptEntrySchema.parse(entry)).toEqual(entry);
    const state = { name: 'Wren' };
    const row = {
      id: 'conversation-1',
      doorId: 'door-id-00001',
      group: 'waiting',
      place: 3,
      dueAt: 3,
    };
    expect(RowSchema.parse({ ...row, state, threads: [] }).state).toEqual(state);
  });
});
