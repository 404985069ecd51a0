import { renderHook } from '@testing-library/react-native';
import { useEscape } from './use-escape';

type Heard = (event: unknown) => void;

const heard = new Set<Heard>();

const press = (key: string, isComposing = false) => {
  const event = { key, isComposing, preventDefault: jest.fn(), stopPropagation: jest.fn() };
  for (const listener of [...heard]) listener(event);
  return event;
};

describe('what Esc closes', () => {
  beforeAll(() => {
    Object.assign(globalThis, {
      addEventListener: (_kind: string, listener: Heard) => heard.add(listener),
      removeEventListener: (_kind: string, listener: Heard) => heard.delete(listener),
    });
  });

  it('is what lies on top, and only that, from the moment it is shown', async () => {
    const below = jest.fn();
    const above = jest.fn();
    const first = await renderHook(() => useEscape(below));
    const second = await renderHook(() => useEscape(above));
    press('Escape');
    expect(above).toHaveBeenCalledTimes(1);
    expect(below).not.toHaveBeenCalled();
    await second.unmount();
    press('Escape');
    expect(below).toHaveBeenCalledTimes(1);
    await first.unmount();
    press('Escape');
    expect(below).toHaveBeenCalledTimes(1);
    expect(heard.size).toBe(0);
  });

  it('is told of no other key, and the screen below is not told of Esc', async () => {
    const close = jest.fn();
    const sheet = await renderHook(() => useEscape(close));
    expect(press('e').stopPropagation).not.toHaveBeenCalled();
    expect(press('Escape', true).stopPropagation).not.toHaveBeenCalled();
    expect(close).not.toHaveBeenCalled();
    expect(press('Escape').stopPropagation).toHaveBeenCalledTimes(1);
    await sheet.unmount();
  });

  it('is closed as the newest drawing says', async () => {
    const old = jest.fn();
    const current = jest.fn();
    const sheet = await renderHook(({ close }: { close: () => void }) => useEscape(close), {
      initialProps: { close: old },
    });
    await sheet.rerender({ close: current });
    press('Escape');
    expect(old).not.toHaveBeenCalled();
    expect(current).toHaveBeenCalledTimes(1);
    await sheet.unmount();
  });
});
