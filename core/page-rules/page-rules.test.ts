import fc from 'fast-check';
import { fitsPattern, mannerOn, takesIn, toPattern } from '.';

describe('a pattern of pages', () => {
  it.each([
    ['/shop', '/shop', true],
    ['/shop', '/SHOP/', true],
    ['/shop', '/shop?x=1#top', true],
    ['/shop', '/shop/ferns', false],
    ['/shop/*', '/shop/ferns', true],
    ['/shop/*', '/shop', true],
    ['/shop/*', '/shopping', false],
    ['*', '/anything/at/all', true],
    ['*/plant-*', '/shop/plant-7', true],
    ['*/plant-*', '/shop/seed-7', false],
    ['/a*b*c', '/axxbyyc', true],
    ['/a*b*c', '/axxcyyb', false],
    ['/aa*aa', '/aaa', false],
    ['/', '/', true],
    ['/', '/x', false],
  ])('%s on %s: %s', (pattern, path, fits) => {
    expect(fitsPattern(pattern, path)).toBe(fits);
  });

  it('fits as the regular expression that it stands for would (checked against RegExp)', () => {
    const piece = fc.stringMatching(/^[ab/*]{0,8}$/);
    fc.assert(
      fc.property(piece, fc.stringMatching(/^[ab/]{0,10}$/), (pattern, path) => {
        const trim = (text: string) => (text.length > 1 ? text.replace(/\/+$/, '') : text);
        const wanted = trim(`/${pattern}`);
        const page = trim(`/${path}`);
        const plain = new RegExp(`^${wanted.replaceAll('*', '.*')}$`).test(page);
        const bare = wanted.endsWith('/*') && page === wanted.slice(0, -2);
        expect(fitsPattern(`/${pattern}`, `/${path}`)).toBe(plain || bare);
      }),
      { numRuns: 2_000 },
    );
  });

  it.each([
    ['https://quillfern.example/Shop/*', '/Shop/*'],
    ['https://quillfern.example', '/'],
    ['shop', '/shop'],
    ['*', '*'],
    ['/a**b', '/a*b'],
    ['/shop?x=1', '/shop'],
    ['two words', null],
    ['', null],
    [`/${'x'.repeat(300)}`, null],
  ])('is kept as it is meant: %s → %s', (typed, kept) => {
    expect(toPattern(typed)).toBe(kept);
  });
});

describe('choosing', () => {
  const isA = (one: string) => one === 'a';

  it('takes in all, only these, or all but these', () => {
    expect(takesIn({ mode: 'all', these: [] }, isA)).toBe(true);
    expect(takesIn({ mode: 'only', these: ['a'] }, isA)).toBe(true);
    expect(takesIn({ mode: 'only', these: ['b'] }, isA)).toBe(false);
    expect(takesIn({ mode: 'except', these: ['a'] }, isA)).toBe(false);
    expect(takesIn({ mode: 'except', these: [] }, isA)).toBe(true);
  });

  it('goes by the first rule that fits the page; none: the door stays quiet', () => {
    const help = { pattern: '/help/*', manner: 'open', afterSeconds: 20 } as const;
    const rest = { pattern: '*', manner: 'peek', afterSeconds: 5 } as const;
    expect(mannerOn([help, rest], '/help/returns')).toBe(help);
    expect(mannerOn([help, rest], '/')).toBe(rest);
    expect(mannerOn([help], '/')).toBeNull();
  });
});
