import type { Parcel } from '@porch/core/send-queue';
import { createShelf, emptyShelf } from '.';

const parcel: Parcel<string> = {
  id: 'parcel-one',
  lane: 'a',
  load: 'Hello',
  madeAt: 1,
  state: 'waiting',
  tries: 0,
  notBefore: 0,
  reason: null,
};

// In a browser with a database it is tried by the tests in a browser: over a reload and in two tabs.
describe.each([
  ['where the browser’s database is forbidden', createShelf<string>('porch-nowhere')],
  ['that forgets', emptyShelf],
])('a shelf %s', (_what, shelf) => {
  it('holds nobody up and has nothing left', async () => {
    await shelf.put(parcel as never);
    await shelf.remove(parcel.id);
    expect(await shelf.all()).toEqual([]);
  });
});
