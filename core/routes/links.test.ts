import { goAsLinks, withLinks } from './links';

const can = { filesMost: 1, fileLargestBytes: 1_000 };

describe('files that a network does not carry', () => {
  it.each<[string, number[], boolean]>([
    ['none', [], false],
    ['as many as it carries', [1_000], false],
    ['one too many', [10, 10], true],
    ['one that is too large', [1_001], true],
  ])('go as links: %s', (_what, sizes, expected) => {
    expect(
      goAsLinks(
        can,
        sizes.map((sizeBytes) => ({ sizeBytes })),
      ),
    ).toBe(expected);
  });

  it('make a text as long as it will be', () => {
    expect(withLinks('Here', 0)).toBe('Here');
    expect(withLinks('Here', 2)).toHaveLength(4 + 2 * 121);
    expect(withLinks('', 1)).toHaveLength(120);
  });
});
