import fc from 'fast-check';
import { SegmentedMessage } from 'sms-segments-calculator';
import { inAlphabet, segmentsOf, toAlphabet } from '.';
import { septetsOf } from './alphabet';

// 3GPP TS 23.038, 6.2.1: the basic table has 128 places, one of them the escape; 6.2.1.1: ten in its extension.
const all = Array.from({ length: 0x2ff_f }, (_none, code) => String.fromCodePoint(code));
const wide = '😀';

describe('the alphabet of text messages', () => {
  it('has as many characters as the standard’s two tables', () => {
    expect(all.filter((character) => septetsOf(character) === 1)).toHaveLength(127);
    expect(all.filter((character) => septetsOf(character) === 2).sort()).toEqual(
      [...'\f^{}\\[~]|€'].sort(),
    );
  });

  it('has something for what people’s programs type in its place', () => {
    expect(toAlphabet('“Today’s” fern – 3 × ½ m …')).toBe('"Today\'s" fern - 3 x 1/2 m ...');
    expect(toAlphabet('ça va, Łódź')).toBe('ca va, Lodz');
    expect(inAlphabet('é')).toBe('é');
    expect(inAlphabet('木')).toBeNull();
    expect(toAlphabet(`fern ${wide}`)).toBe(`fern ${wide}`);
  });

  it('puts nothing in a character’s place that is not in it', () => {
    for (const character of all) {
      const other = inAlphabet(character);
      if (other !== null) expect([...other].every((one) => septetsOf(one) > 0)).toBe(true);
    }
  });
});

describe('a text as text messages', () => {
  // 3GPP TS 23.038, 4 and TS 23.040, 9.2.3.24.1: 160 and 153 places, 70 and 67.
  it.each([
    ['nothing', '', 0, 160],
    ['as much as one holds', 'a'.repeat(160), 1, 0],
    ['one more', 'a'.repeat(161), 2, 145],
    ['two full ones', 'a'.repeat(306), 2, 0],
    ['three', 'a'.repeat(307), 3, 152],
    ['a character of two places', '€', 1, 158],
    ['one that would be broken in two', `${'a'.repeat(152)}€${'a'.repeat(10)}`, 2, 141],
    ['as much Unicode as one holds', 'ж'.repeat(70), 1, 0],
    ['one more of that', 'ж'.repeat(71), 2, 63],
    [
      'a character of two units that would be broken',
      `${'ж'.repeat(66)}${wide}ж`.padEnd(72, 'ж'),
      2,
      61,
    ],
  ])('is counted where it is %s', (_what, text, count, left) => {
    expect(segmentsOf(text)).toMatchObject({ count, left });
  });

  it('says which characters cost, each once, and what it would cost without them', () => {
    const text = `${'a'.repeat(100)}’’ and “so”`;
    expect(segmentsOf(text)).toEqual({
      encoding: 'unicode',
      count: 2,
      left: 23,
      costly: [
        { character: '’', instead: "'" },
        { character: '“', instead: '"' },
        { character: '”', instead: '"' },
      ],
      countInstead: 1,
    });
    expect(segmentsOf(toAlphabet(text))).toMatchObject({ encoding: 'alphabet', costly: [] });
  });

  it('promises nothing where one of them has nothing in its place', () => {
    expect(segmentsOf(`It’s ${wide}`)).toMatchObject({ countInstead: null });
  });

  it('counts a letter and its accent as the one that they are', () => {
    expect(segmentsOf('e\u0300'.repeat(160))).toMatchObject({ encoding: 'alphabet', count: 1 });
  });

  // sms-segments-calculator, which knows no replacements by itself.
  it('is what a library of the trade counts, whatever stands in it', () => {
    const pieces = fc.oneof(
      { weight: 6, arbitrary: fc.constantFrom(...'abc xyz.,?€{}[]~|^\\ÄÖÅéè') },
      { weight: 1, arbitrary: fc.constantFrom('ж', '’', '木', wide, 'ç', '\u{1F33F}') },
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.array(fc.constantFrom(...'abc €{}[]ÄÖé'), { maxLength: 700 }),
          fc.array(pieces, { maxLength: 400 }),
        ),
        (characters) => {
          const text = characters.join('');
          const theirs = new SegmentedMessage(text, 'auto', false);
          const ours = segmentsOf(text);
          expect([ours.count, ours.encoding]).toEqual([
            text ? theirs.segmentsCount : 0,
            text && theirs.encodingName === 'UCS-2' ? 'unicode' : 'alphabet',
          ]);
        },
      ),
      { seed: 23_038, numRuns: 1_000 },
    );
  });
});
