import { findingsIn, findingsWithoutGaps, withInstead, wordsToSpell } from '.';

describe('what is found wrong in a stored text', () => {
  const found = (text: string) => findingsIn(text).map(({ kind, words }) => [kind, words]);

  it.each([
    ['We are are open', [['doubled', 'are are']]],
    ['The\nthe door', [['doubled', 'The\nthe']]],
    ['What we had had that that', []],
    ['Two  spaces', [['spaces', '  ']]],
    ['  At the edges  ', []],
    ['Hello NAME', [['placeholder', 'NAME']]],
    [
      'Hello [customer name], on %date%',
      [
        ['placeholder', '[customer name]'],
        ['placeholder', '%date%'],
      ],
    ],
    ['A [link](https://a.example) and XXX', [['placeholder', 'XXX']]],
    ['USA and BBC, no NAMES', []],
    ['Hi {first name|NAME}', []],
    ['See {weather}', [['unknown-gap', 'weather']]],
    [
      'A } and {',
      [
        ['broken', '}'],
        ['broken', '{'],
      ],
    ],
  ])('in %j', (text, expected) => {
    expect(found(text)).toEqual(expected);
  });

  it('is mended by what could stand there instead', () => {
    const mend = (text: string): string => {
      const [first] = findingsIn(text);
      return first ? mend(withInstead(text, first, first.instead[0] ?? '')) : text;
    };
    expect(mend('Hello  NAME, see the the {weather|sun}')).toBe(
      'Hello {name?}, see the {weather?|sun}',
    );
  });

  it('is in a text without gaps every gap that is never filled in, and no brace', () => {
    const text = 'Hi {first name|there}, see {weather} and NAME :-} {';
    expect(findingsWithoutGaps(text, findingsIn(text))).toMatchObject([
      { kind: 'never-filled', words: '{first name|there}', instead: ['there'] },
      { kind: 'never-filled', words: '{weather}', instead: [] },
      { kind: 'placeholder', words: 'NAME', instead: [] },
    ]);
    expect(findingsWithoutGaps('{a}'.repeat(200), [])).toHaveLength(50);
  });

  it('is bounded, also where all of a long text is wrong', () => {
    expect(findingsIn('NAME '.repeat(4_000)).length).toBe(50);
  });

  it('asks a dictionary about words only', () => {
    const words = wordsToSpell(
      'Don’t water {first name|mate} at https://quillfern.example/care, QF1101, a2b, mail a@b.example; Best-in-show NAME',
    );
    expect(words.map(({ word }) => word)).toEqual(['Don’t', 'water', 'at', 'mail', 'Best-in-show']);
  });
});
