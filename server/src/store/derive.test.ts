import { createStore, openDatabase } from '.';

/** Whether a commit waits for the disk: 2 (FULL) does, 1 (NORMAL) does not (https://www.sqlite.org/pragma.html#pragma_synchronous). */
const [WAITS, WAITS_NOT] = [2, 1];

describe('what can be found again from what is there', () => {
  const db = openDatabase(':memory:');
  const store = createStore(db);
  const waits = (): unknown => db.pragma('synchronous', { simple: true });
  afterAll(() => store.close());

  it('is written without waiting for the disk, and whatever comes next waits again', () => {
    expect(store.derive(waits)).toBe(WAITS_NOT);
    expect(store.atOnce(waits)).toBe(WAITS);
  });

  it('lets the next one wait also where it came to nothing', () => {
    const refuse = () => {
      store.ticks.set('team', 1);
      throw new Error('refused');
    };
    expect(() => store.derive(refuse)).toThrow('refused');
    expect(store.ticks.has('team')).toBe(false);
    expect(store.atOnce(waits)).toBe(WAITS);
  });

  it('is waited for with whatever it stands in', () => {
    expect(store.atOnce(() => store.derive(waits))).toBe(WAITS);
    expect(store.atOnce(waits)).toBe(WAITS);
  });
});
