import fc from 'fast-check';
import { backOffMs, nextLookAt, type Queue, type QueueAction, ready, step } from '.';

const add = (id: string, lane = 'a'): QueueAction<string> => ({
  do: 'add',
  parcel: { id, lane, load: id, madeAt: 0 },
});

const after = (...actions: QueueAction<string>[]): Queue<string> =>
  actions.reduce<Queue<string>>(step, []);

const leaving = (queue: Queue<string>, now = 0): string[] => ready(queue, now).map(({ id }) => id);

describe('the send queue', () => {
  it('lets one parcel of a lane leave at a time, in order, and lanes beside each other', () => {
    const queue = after(add('1'), add('2'), add('3', 'b'));
    expect(leaving(queue)).toEqual(['1', '3']);
    expect(leaving(step(queue, { do: 'sending', id: '1' }))).toEqual(['3']);
    expect(leaving(step(queue, { do: 'arrived', id: '1' }))).toEqual(['2', '3']);
  });

  it('takes the same parcel once', () => {
    expect(after(add('1'), add('1'))).toHaveLength(1);
  });

  it('waits longer after each failure, and holds the lane so that the order stays', () => {
    const once = after(add('1'), add('2'), { do: 'not-now', id: '1', now: 0 });
    expect(leaving(once, 999)).toEqual([]);
    expect(nextLookAt(once, 0)).toBe(1_000);
    expect(leaving(once, 1_000)).toEqual(['1']);
    expect([1, 2, 3, 5, 6, 50].map(backOffMs)).toEqual([
      1_000, 2_000, 4_000, 16_000, 30_000, 30_000,
    ]);
  });

  it('sends at once when the server can be reached again', () => {
    const queue = after(add('1'), { do: 'not-now', id: '1', now: 0 }, { do: 'connected' });
    expect(leaving(queue, 1)).toEqual(['1']);
  });

  it('does not let a refused parcel hold up the others, and keeps it until it is retried or dropped', () => {
    const queue = after(add('1'), add('2'), { do: 'refused', id: '1', reason: 'too-large' });
    expect(leaving(queue)).toEqual(['2']);
    expect(queue[0]).toMatchObject({ state: 'failed', reason: 'too-large' });
    expect(leaving(step(queue, { do: 'connected' }))).toEqual(['2']);
    expect(step(queue, { do: 'retry', id: '1' }).map(({ id }) => id)).toEqual(['2', '1']);
    expect(step(queue, { do: 'drop', id: '1' })).toHaveLength(1);
  });

  it('loses nothing and sends nothing twice at a time, whatever fails in between', () => {
    const anyAction = fc.oneof(
      fc.constantFrom('1', '2', '3', '4').map((id) => add(id, Number(id) % 2 ? 'a' : 'b')),
      fc
        .constantFrom('1', '2', '3', '4')
        .chain((id) =>
          fc.constantFrom<QueueAction<string>>(
            { do: 'sending', id },
            { do: 'not-now', id, now: 0 },
            { do: 'refused', id, reason: 'x' },
            { do: 'retry', id },
          ),
        ),
      fc.constant<QueueAction<string>>({ do: 'connected' }),
    );
    fc.assert(
      fc.property(fc.array(anyAction, { maxLength: 60 }), (actions) => {
        const added = new Set(actions.flatMap((one) => (one.do === 'add' ? [one.parcel.id] : [])));
        const queue = after(...actions);
        expect(new Set(queue.map(({ id }) => id))).toEqual(added);
        expect(queue).toHaveLength(added.size);
        const lanes = ready(queue, Number.MAX_SAFE_INTEGER).map(({ lane }) => lane);
        expect(new Set(lanes).size).toBe(lanes.length);
      }),
    );
  });
});
