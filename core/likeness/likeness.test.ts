import { byLikeness, nameKey } from '.';

describe('by what two names are compared', () => {
  it.each([
    ['Wren Ash', 'wren ash'],
    ['  WREN   ash ', 'wren ash'],
    ['Rénée O’Hara-Wren', 'renee o hara wren'],
    ['Łucja Żółw', 'łucja zołw'],
    ['王 小明明明', '王 小明明明'],
    ['Wren', ''],
    ['A B', ''],
    ['', ''],
    ['!!! ???', ''],
  ])('%j is %j', (name, key) => {
    expect(nameKey(name)).toBe(key);
  });
});

describe('whoever may be the same', () => {
  it('comes the likeliest first, of equal ones in their order', () => {
    const name = { id: 1, reasons: ['name'] as const };
    const device = { id: 2, reasons: ['device'] as const };
    const both = { id: 3, reasons: ['name', 'device'] as const };
    const email = { id: 4, reasons: ['email'] as const };
    const phone = { id: 5, reasons: ['phone'] as const };
    expect(byLikeness([name, device, both, email, phone]).map(({ id }) => id)).toEqual([
      3, 4, 5, 2, 1,
    ]);
  });
});
