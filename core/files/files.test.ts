import { cleanFileName, sizeText } from '.';

describe('a file’s name as it is kept', () => {
  it.each([
    ['fern.jpg', 'fern.jpg'],
    ['../../etc/passwd', '.. .. etc passwd'],
    ['C:\\holiday\\fern.jpg', 'C: holiday fern.jpg'],
    ['invoice\u202Egpj.exe', 'invoicegpj.exe'],
    ['a\u200Eb\u200Fc\u061C.txt', 'abc.txt'],
    ['two\nlines.txt', 'two lines.txt'],
    ['\u200B\u2060', 'file'],
    ['', 'file'],
  ])('%j is kept as %j', (typed, kept) => expect(cleanFileName(typed)).toBe(kept));

  it('is the end of one that is too long, which says what it is', () => {
    const name = cleanFileName(`${'x'.repeat(300)}.pdf`);
    expect(name).toHaveLength(120);
    expect(name.endsWith('.pdf')).toBe(true);
  });
});

describe('a file’s size', () => {
  it.each([
    [1, '1 kB'],
    [2_500, '2 kB'],
    [3_400_000, '3.2 MB'],
  ])('of %d bytes is %s', (bytes, text) => expect(sizeText(bytes)).toBe(text));
});
