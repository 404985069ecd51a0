import { saysHello, signFor } from '.';

const now = 1_000;
const wrote = { hasSign: false, isAutomatic: false };
const dark = { state: 'dark', until: 5_000 } as const;

describe('the door sign', () => {
  it('is given to whoever writes while nobody is in, with the time if there is one', () => {
    expect(signFor({ ...wrote, light: dark }, now)).toEqual({ text: 'signUntil', until: 5_000 });
    expect(signFor({ ...wrote, light: { state: 'dark', until: null } }, now)).toEqual({
      text: 'signDark',
      until: null,
    });
    expect(signFor({ ...wrote, light: { state: 'back-soon', until: 2_000 } }, now)).toEqual({
      text: 'signUntil',
      until: 2_000,
    });
  });

  it('is none while somebody answers, also where that began since the light was told', () => {
    expect(signFor({ ...wrote, light: { state: 'lit', until: null } }, now)).toBeNull();
    expect(signFor({ ...wrote, light: { state: 'back-soon', until: now } }, now)).toBeNull();
  });

  it('is never given twice, nor to a program (RFC 3834, section 2)', () => {
    expect(signFor({ ...wrote, hasSign: true, light: dark }, now)).toBeNull();
    expect(signFor({ ...wrote, isAutomatic: true, light: dark }, now)).toBeNull();
  });
});

describe('the first hello', () => {
  const lit = { state: 'lit', until: null } as const;
  const hello = { isOn: true, days: [], from: 0, to: 0 };
  const at = (weekday: number, time: string) => {
    const [hours = 0, minutes = 0] = time.split(':').map(Number);
    return { weekday, minute: hours * 60 + minutes };
  };
  const written = { light: lit, hello, isFirst: true, isAutomatic: false, ...at(0, '10:00') };
  const says = (change: object) => saysHello({ ...written, ...change }, 0);

  it('is said to a first message while the light is lit, and to nothing else', () => {
    expect(says({})).toBe(true);
    expect(says({ isFirst: false })).toBe(false);
    expect(says({ isAutomatic: true })).toBe(false);
    expect(says({ hello: { ...hello, isOn: false } })).toBe(false);
    expect(says({ light: { state: 'dark', until: null } })).toBe(false);
    expect(says({ light: { state: 'back-soon', until: 1 } })).toBe(false);
  });

  it.each([
    [{ from: 540, to: 1_020 }, [0, '08:59'], false],
    [{ from: 540, to: 1_020 }, [0, '09:00'], true],
    [{ from: 540, to: 1_020 }, [0, '17:00'], false],
    [{ days: [1] }, [0, '10:00'], false],
    [{ days: [1] }, [1, '10:00'], true],
    [{ days: [4], from: 1_320, to: 120 }, [4, '23:00'], true],
    [{ days: [4], from: 1_320, to: 120 }, [5, '01:59'], true],
    [{ days: [4], from: 1_320, to: 120 }, [5, '02:00'], false],
    [{ days: [4], from: 1_320, to: 120 }, [4, '01:00'], false],
    [{ days: [0], from: 1_320, to: 120 }, [6, '23:00'], false],
    [{ days: [6], from: 1_320, to: 120 }, [0, '01:00'], true],
  ] as const)(
    'keeps to the days and times that were chosen: %j at %j is %s',
    (change, when, isSaid) => {
      expect(says({ hello: { ...hello, ...change }, ...at(when[0], when[1]) })).toBe(isSaid);
    },
  );
});
