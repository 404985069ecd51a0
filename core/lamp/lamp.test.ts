import { lampAt, lit, takesNotes } from '.';

describe('the porch light', () => {
  const soon = { state: 'back-soon', until: 1_000 } as const;

  it('comes back by itself at the moment that was promised', () => {
    expect(lampAt(soon, 999)).toEqual(soon);
    expect(lampAt(soon, 1_000)).toEqual(lit);
  });

  it('stays dark until somebody lights it', () => {
    const dark = { state: 'dark', until: null } as const;
    expect(lampAt(dark, Number.MAX_SAFE_INTEGER)).toEqual(dark);
  });

  it('takes notes exactly while it is not lit', () => {
    expect(takesNotes(lit, 0)).toBe(false);
    expect(takesNotes(soon, 999)).toBe(true);
    expect(takesNotes(soon, 1_000)).toBe(false);
    expect(takesNotes({ state: 'dark', until: null }, 0)).toBe(true);
  });
});
