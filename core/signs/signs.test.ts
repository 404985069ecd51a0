import { signFor } from '.';

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
