import type { Entry, HappeningKind } from '@porch/core/conversation';
import { emptyConversation, entryKinds } from '@porch/core/conversation';
import { EntrySchema, RowSchema } from '.';

/** Every field that there is, none left out: the compiler asks for each. */
type Whole<One> = { [Field in keyof One]-?: One[Field] };
type WholeEntries = { [Kind in HappeningKind]: Whole<Extract<Entry, { kind: Kind }>> };

const filed = {
  seq: 7,
  id: 'entry-id-0001',
  conversationId: 'conversation-1',
  at: 1_794_477_600_000,
};
const memberId = 'member-id-0001';
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
  },
  'team-said': { ...filed, kind: 'team-said', memberId, text: 'Hi', files },
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
  here: { ...filed, kind: 'here' },
  gone: { ...filed, kind: 'gone' },
  'visitor-has': { ...filed, kind: 'visitor-has', upTo: 6 },
  'visitor-read': { ...filed, kind: 'visitor-read', upTo: 6 },
  'team-read': { ...filed, kind: 'team-read', memberId, upTo: 6 },
  'wrapped-up': { ...filed, kind: 'wrapped-up', memberId },
  'put-by': { ...filed, kind: 'put-by', memberId, until: 1_794_481_200_000 },
  'taken-back': { ...filed, kind: 'taken-back', memberId },
  returned: { ...filed, kind: 'returned' },
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
      state: {
        ...emptyConversation,
        own: [{ id: 'question-0001', label: 'Pot size', value: '12 cm' }],
        page,
        zone: 'Europe/Lisbon',
        aside: 'put-by',
        putByUntil: 5,
        waitingSince: 4,
        lastBy: 'team',
        movedAt: 3,
        unread: [1, 2],
      },
    };
    expect(RowSchema.parse(row)).toEqual(row);
  });
});
