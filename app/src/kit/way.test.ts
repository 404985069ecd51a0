import { wayOn, wayTo } from './way';

const mockGone = jest.fn();

jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockGone(to) } }));

describe('a way to an address of the app', () => {
  const press = (way: ReturnType<typeof wayTo>, keys: object = {}): boolean => {
    let isPrevented = false;
    const event = {
      nativeEvent: { metaKey: false, ctrlKey: false, shiftKey: false, ...keys },
      preventDefault: () => {
        isPrevented = true;
      },
    };
    way.onPress(event as never);
    return isPrevented;
  };
  beforeEach(() => mockGone.mockClear());

  it('is a link with that address, and goes there without loading the page', () => {
    const way = wayTo('/house/mail');
    expect([way.role, way.href]).toEqual(['link', '/house/mail']);
    expect(press(way)).toBe(true);
    expect(mockGone.mock.calls).toEqual([['/house/mail']]);
  });

  it.each(['metaKey', 'ctrlKey', 'shiftKey'])('leaves it to the browser with %s', (key) => {
    expect(press(wayTo('/line'), { [key]: true })).toBe(false);
    expect(mockGone).not.toHaveBeenCalled();
  });

  it('is a button where it leads nowhere', () => {
    const choose = jest.fn();
    expect(wayOn(choose)).toEqual({ role: 'button', onPress: choose });
    expect(wayOn('/line')).toMatchObject({ role: 'link', href: '/line' });
  });

  it('does more than that where it is told so', () => {
    const go = jest.fn();
    expect(press(wayTo('/line/x', go))).toBe(true);
    expect([go.mock.calls.length, mockGone.mock.calls.length]).toEqual([1, 0]);
  });
});
