import type { Parcel } from '@porch/core/send-queue';
import { createShelf, emptyShelf } from '.';

/** The browser's database as the test plays it: by name, or forbidden. */
const mockStored = new Map<string, Map<string, unknown>>();
let mockIsAllowed = true;

jest.mock('idb-keyval', () => {
  const rows = (name: string) => {
    if (!mockIsAllowed) throw new Error('forbidden');
    const known = mockStored.get(name) ?? new Map<string, unknown>();
    mockStored.set(name, known);
    return known;
  };
  return {
    createStore: (name: string) => name,
    set: async (id: string, value: unknown, name: string) => void rows(name).set(id, value),
    del: async (id: string, name: string) => void rows(name).delete(id),
    entries: async (name: string) => [...rows(name)],
  };
});

const parcel = (id: string, madeAt: number): Parcel<string> => ({
  id,
  lane: 'a',
  load: `Load of ${id}`,
  madeAt,
  state: 'waiting',
  tries: 0,
  notBefore: 0,
  reason: null,
});

describe('a shelf for what is not sent yet', () => {
  beforeEach(() => {
    mockStored.clear();
    mockIsAllowed = true;
  });

  it('gives the next page what the last one left, the oldest first', async () => {
    const shelf = createShelf<string>('porch-a');
    await shelf.put(parcel('late', 2));
    await shelf.put(parcel('early', 1));
    expect(await createShelf<string>('porch-a').all()).toEqual([
      parcel('early', 1),
      parcel('late', 2),
    ]);
    expect(await createShelf<string>('porch-b').all()).toEqual([]);
  });

  it('is shared by two tabs, and neither overwrites what the other has put there', async () => {
    const [one, other] = [createShelf<string>('porch-a'), createShelf<string>('porch-a')];
    await one.put(parcel('mine', 1));
    await other.put(parcel('theirs', 2));
    await one.remove('mine');
    expect((await other.all()).map(({ id }) => id)).toEqual(['theirs']);
  });

  it('holds nobody up where the database is forbidden', async () => {
    mockIsAllowed = false;
    const shelf = createShelf<string>('porch-a');
    await shelf.put(parcel('lost', 1));
    await shelf.remove('lost');
    expect(await shelf.all()).toEqual([]);
  });

  it('that forgets touches no database', async () => {
    await emptyShelf.put(parcel('tried', 1) as never);
    expect([await emptyShelf.all(), mockStored.size]).toEqual([[], 0]);
  });
});
