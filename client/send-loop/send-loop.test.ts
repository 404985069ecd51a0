import type { Refusal } from '@porch/contract/errors';
import { type Parcel, type Queue, step } from '@porch/core/send-queue';
import type { Shelf } from '../shelf';
import { createSendLoop, type Outcome } from '.';

type Load = string;

const refusal: Refusal = { code: 'too-large', limit: 5 };

/** A device that the test plays: what waits on it, what is kept over a reload, and a server that answers as told. */
const openDevice = (shelved: Map<string, Parcel<Load>> = new Map()) => {
  let queue: Queue<Load> = [];
  let isConnected = true;
  let answer: Outcome = 'arrived';
  const sent: Load[] = [];
  const refused: [string, Refusal][] = [];
  const shelf: Shelf<Load> = {
    put: async (parcel) => void shelved.set(parcel.id, parcel),
    remove: async (id) => void shelved.delete(id),
    all: async () => [...shelved.values()],
  };
  const loop = createSendLoop<Load>({
    queue: () => queue,
    change: (action) => {
      queue = step(queue, action);
    },
    deliver: async ({ load }) => {
      sent.push(load);
      return answer;
    },
    refused: ({ load }, why) => refused.push([load, why]),
    mayLeave: () => isConnected,
    shelf,
    now: () => Date.now(),
  });
  return {
    loop,
    sent,
    refused,
    shelved,
    waiting: () => queue.map(({ load }) => load),
    stateOf: (load: Load) => queue.find((one) => one.load === load)?.state,
    answerWith: (next: Outcome) => {
      answer = next;
    },
    connect: (next: boolean) => {
      isConnected = next;
    },
  };
};

const settled = () => jest.advanceTimersByTimeAsync(10);

describe('sending what waits on a device', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('goes one after the other in a lane, and is kept until the server has it', async () => {
    const device = openDevice();
    device.loop.add('a', 'One');
    device.loop.add('a', 'Two');
    expect(device.sent).toEqual(['One']);
    expect(device.shelved.size).toBe(2);
    await settled();
    expect(device.sent).toEqual(['One', 'Two']);
    expect([device.waiting(), device.shelved.size]).toEqual([[], 0]);
  });

  it('waits without a connection, and goes as soon as there is one', async () => {
    const device = openDevice();
    device.connect(false);
    device.loop.add('a', 'One');
    await jest.advanceTimersByTimeAsync(60_000);
    expect([device.sent, device.shelved.size]).toEqual([[], 1]);
    device.connect(true);
    device.loop.connected();
    await settled();
    expect(device.sent).toEqual(['One']);
  });

  it('is tried again by itself, slower from time to time, and holds what comes behind it', async () => {
    const device = openDevice();
    device.answerWith('not-now');
    device.loop.add('a', 'One');
    device.loop.add('a', 'Two');
    await jest.advanceTimersByTimeAsync(3_500);
    expect(device.sent).toEqual(['One', 'One', 'One']);
    device.answerWith('arrived');
    await jest.advanceTimersByTimeAsync(4_000);
    expect(device.sent).toEqual(['One', 'One', 'One', 'One', 'Two']);
  });

  it('keeps what was refused with why, lets the next pass, and sends it anew when asked', async () => {
    const device = openDevice();
    device.answerWith(refusal);
    const id = device.loop.add('a', 'Too much');
    await settled();
    expect([device.refused, device.stateOf('Too much')]).toEqual([
      [['Too much', refusal]],
      'failed',
    ]);
    device.answerWith('arrived');
    device.loop.add('a', 'Next');
    await settled();
    expect([device.waiting(), device.shelved.size]).toEqual([['Too much'], 1]);
    device.loop.retry(id);
    await settled();
    expect([device.waiting(), device.shelved.size]).toEqual([[], 0]);
  });

  it('drops what is nobody’s to do anew', async () => {
    const device = openDevice();
    device.answerWith('pointless');
    device.loop.add('a', 'Seen');
    await settled();
    expect([device.waiting(), device.refused, device.shelved.size]).toEqual([[], [], 0]);
  });

  it('takes up what an earlier page left, under the ids that it had', async () => {
    const before = openDevice();
    before.connect(false);
    const id = before.loop.add('a', 'Left');
    const after = openDevice(before.shelved);
    await after.loop.start();
    await settled();
    expect([after.sent, after.shelved.has(id)]).toEqual([['Left'], false]);
  });

  it('keeps no longer what the server was heard to have', async () => {
    const device = openDevice();
    device.connect(false);
    const id = device.loop.add('a', 'Heard of');
    device.loop.settled([id]);
    expect(device.shelved.has(id)).toBe(true);
    device.loop.drop(id);
    expect(device.shelved.has(id)).toBe(false);
  });

  it('stops looking once it is told to', async () => {
    const device = openDevice();
    device.answerWith('not-now');
    device.loop.add('a', 'One');
    await settled();
    device.loop.stop();
    await jest.advanceTimersByTimeAsync(60_000);
    expect(device.sent).toEqual(['One']);
  });
});
