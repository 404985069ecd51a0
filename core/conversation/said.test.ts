import { amendedIn, type Entry, inOrderSaid } from '.';

const filed = { conversationId: 'talk-0000001', threadId: 'thread-00001' };
const said = (seq: number, at: number, saidAt?: number): Entry => ({
  ...filed,
  kind: 'visitor-said',
  seq,
  id: `said-${seq}`,
  at,
  text: `${seq}`,
  files: [],
  note: false,
  page: null,
  ...(saidAt === undefined ? {} : { saidAt }),
});
const changed = (seq: number, of: number, saidAt: number, text: string | null): Entry => ({
  ...filed,
  seq,
  id: `change-${seq}`,
  at: seq,
  of,
  saidAt,
  ...(text === null ? { kind: 'visitor-withdrew' } : { kind: 'visitor-changed', text }),
});
const seqs = (entries: readonly Entry[]) => entries.map(({ seq }) => seq);

describe('what was said', () => {
  it('stands in the order in which it was, however it came', () => {
    expect(seqs(inOrderSaid([said(1, 10), said(2, 20, 5), said(3, 30), said(4, 40, 25)]))).toEqual([
      2, 1, 4, 3,
    ]);
  });

  it('stands as it came where nothing is known of that', () => {
    const entries = [said(1, 10), said(2, 10), said(3, 9)];
    expect(inOrderSaid(entries)).toBe(entries);
  });

  it('is what its writer made of it last, in whichever order that came', () => {
    const amended = amendedIn([
      said(1, 1),
      changed(2, 1, 200, 'Later'),
      changed(3, 1, 100, 'Earlier'),
      changed(4, 9, 50, 'Gone soon'),
      changed(5, 9, 60, null),
    ]);
    expect([...amended]).toEqual(
      expect.arrayContaining([
        [1, 'Later'],
        [9, null],
      ]),
    );
    expect(amended.size).toBe(2);
  });
});
