import fc from 'fast-check';
import { cleanLine, cleanMessage, initials, looksLikeEmail, looksLikePhone, summary } from '.';

describe('a message as it is kept', () => {
  it('keeps line breaks, emoji and scripts of every direction', () => {
    expect(cleanMessage('Hello\r\nשלום 👩🏽‍🌾\n\nbye')).toBe('Hello\nשלום 👩🏽‍🌾\n\nbye');
  });

  it('drops controls and the marks that reorder what stands after them', () => {
    expect(cleanMessage('a\u0000b\u001B[31mc')).toBe('ab[31mc');
    expect(cleanMessage('\u202Egnp.exe\u202C')).toBe('gnp.exe');
  });

  it('is none when there is nothing to see, and keeps marks that others are made of', () => {
    for (const nothing of ['\u200B\u200D', '\u3164', '\u2800 \u2060', '\uFE0F', '\u00AD\u200E']) {
      expect([nothing, cleanMessage(nothing), cleanLine(nothing)]).toEqual([nothing, '', '']);
    }
    // A family of emoji and a Persian word are held together by such marks.
    for (const text of ['👩‍👩‍👧', 'می\u200Cخواهم']) expect(cleanLine(text)).toBe(text);
  });

  it('keeps markup as the plain text that it is', () => {
    expect(cleanMessage('<script>alert(1)</script>')).toBe('<script>alert(1)</script>');
  });

  it('does not let a wall of empty lines through', () => {
    expect(cleanMessage(`a${'\n'.repeat(500)}b`)).toBe('a\n\n\nb');
  });

  it('is the same when it is cleaned twice, and never holds half a character', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 200 }), (text) => {
        const once = cleanMessage(text);
        expect(cleanMessage(once)).toBe(once);
        expect(() => encodeURIComponent(once)).not.toThrow();
      }),
    );
  });
});

describe('one line', () => {
  it('folds white space', () => {
    expect(cleanLine('  Maren \n\t Oduya ')).toBe('Maren Oduya');
  });

  it('stands for a message, or for its first file when nothing was written', () => {
    const file = { id: 'f', name: 'fern.jpg', type: 'image/jpeg', sizeBytes: 9 };
    expect(summary('Look\nhere', [file])).toBe('Look here');
    expect(summary(' ', [file])).toBe('fern.jpg');
    expect(summary('', [])).toBe('');
  });
});

describe('initials', () => {
  it.each([
    ['Maren Oduya', 'MO'],
    ['Cher', 'C'],
    ['maria de la cruz', 'MC'],
    ['𝒜lan', '𝒜'],
    ['', ''],
  ])('of %j are %j', (name, expected) => expect(initials(name)).toBe(expected));
});

describe('what looks like a way to be reached', () => {
  it.each(['a@b.example', 'maren.oduya+plants@quillfern.example', 'ü@müller.example'])(
    '%s is an email',
    (text) => expect(looksLikeEmail(text)).toBe(true),
  );
  it.each([
    '',
    'a',
    'a@',
    '@b.example',
    'a@b',
    'a b@c.example',
    '<a@b.example>',
    'a@b..example',
    `${'a'.repeat(250)}@b.example`,
  ])('%j is none', (text) => expect(looksLikeEmail(text)).toBe(false));
  it.each(['07700 900123', '+44 20 7946 0999', '(020) 7946-0012'])('%s is a phone number', (text) =>
    expect(looksLikePhone(text)).toBe(true),
  );
  it.each(['', '12345', 'call me', '07700 900123 ext', '1'.repeat(40)])('%j is none', (text) =>
    expect(looksLikePhone(text)).toBe(false),
  );
});
