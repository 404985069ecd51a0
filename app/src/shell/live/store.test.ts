import { live } from './store';

const counts = { waiting: 0, note: 0, answered: 0, 'put-by': 0, 'wrapped-up': 0 };
const page = (seq: number) => ({ counts, seq, last: seq === 0 ? null : `entry-${seq}`, now: 0 });
const nothing = { isKnown: false, isConnected: false, seq: 0, last: null };

describe('from where a device goes on', () => {
  beforeEach(() => live.set(nothing));

  it('is where the first page of the line stands', () => {
    live.learn('all', page(4));
    expect(live.now()).toMatchObject({ seq: 4, last: 'entry-4' });
  });

  it('is the oldest of pages that come side by side', () => {
    live.learn('all', page(4));
    live.learn('all', page(3));
    live.learn('all', page(6));
    expect(live.now().seq).toBe(3);
  });

  it('is no page once it is connected', () => {
    live.set({ isKnown: true, isConnected: true, seq: 5, last: 'entry-5' });
    live.learn('all', page(4));
    expect(live.now().seq).toBe(5);
  });

  // What this device kept of a new house is nothing yet; what came since is to be asked for, not passed over.
  it('is the beginning, where that is what this device had seen', () => {
    live.set({ isKnown: true, seq: 0, last: null });
    live.learn('all', page(4));
    expect(live.now()).toMatchObject({ seq: 0, last: null });
    live.set(nothing);
    live.learn('all', page(0));
    live.learn('all', page(4));
    expect(live.now().seq).toBe(0);
  });
});
