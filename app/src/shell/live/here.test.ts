/** @jest-environment jsdom */
import { watchHere } from './here';

describe('whether somebody is here', () => {
  let visibility = 'visible';
  let here: ReturnType<typeof watchHere>;
  let told: { isInSight: boolean; isTouched: boolean }[];

  const show = (state: string): void => {
    visibility = state;
    document.dispatchEvent(new Event('visibilitychange'));
  };
  const begin = (state: string): void => {
    visibility = state;
    told = [];
    here = watchHere((is) => told.push(is));
  };

  beforeEach(() => {
    jest.useFakeTimers({ now: 1_000_000 });
    Object.defineProperty(document, 'visibilityState', {
      configurable: true,
      get: () => visibility,
    });
  });
  afterEach(() => {
    here.stop();
    jest.useRealTimers();
  });

  it('is told on each new connection, and as touched only for a minute', () => {
    begin('visible');
    here.connected();
    jest.advanceTimersByTime(61_000);
    here.connected();
    expect(told).toEqual([
      { isInSight: true, isTouched: true },
      { isInSight: true, isTouched: false },
    ]);
  });

  it('is not claimed by an app that starts out of sight', () => {
    begin('hidden');
    here.connected();
    expect(told).toEqual([{ isInSight: false, isTouched: false }]);
  });

  it('is told of again once a minute while somebody goes on', () => {
    begin('visible');
    here.connected();
    for (let second = 0; second < 150; second += 1) {
      jest.advanceTimersByTime(1_000);
      dispatchEvent(new Event(second % 2 ? 'pointerdown' : 'keydown'));
    }
    expect(told).toHaveLength(3);
    expect(told.every(({ isTouched }) => isTouched)).toBe(true);
  });

  it('is told when the app goes out of sight, untouched where that was long ago, and when it is back', () => {
    begin('visible');
    jest.advanceTimersByTime(300_000);
    show('hidden');
    show('visible');
    expect(told).toEqual([
      { isInSight: false, isTouched: false },
      { isInSight: true, isTouched: true },
    ]);
  });

  it('ends with the connection', () => {
    begin('visible');
    here.stop();
    show('hidden');
    dispatchEvent(new Event('keydown'));
    expect(told).toEqual([]);
  });
});
