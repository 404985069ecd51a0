import fc from 'fast-check';
import {
  briefOf,
  cleanCode,
  codeAt,
  codeFor,
  fillIn,
  firstNameOf,
  GAP_LONGEST,
  gapCalled,
  indexReplies,
  openGaps,
  piecesOf,
  titleFor,
  toStored,
  withoutGaps,
} from '.';

const withBraces = fc.string({
  unit: fc.constantFrom('{', '}', '|', '?', 'a', 'B', ' ', '\n', '.'),
});

describe('a text with gaps', () => {
  it('is taken apart in order and without a rest', () => {
    fc.assert(
      fc.property(withBraces, (text) => {
        const pieces = piecesOf(text);
        expect(pieces.map(({ from, to }) => text.slice(from, to)).join('')).toBe(text);
        for (const { from, to } of pieces) expect(to).toBeGreaterThan(from);
      }),
    );
  });

  it.each([
    ['{first name}', { known: 'first name', fallback: null, isAsked: false }],
    ['{ First  name | there }', { known: 'first name', fallback: 'there', isAsked: false }],
    ['{Vorname|du}', { known: 'first name', fallback: 'du' }],
    ['{order number?}', { known: null, isAsked: true, name: 'order number?' }],
    ['{order number?|QF-1}', { isAsked: true, fallback: 'QF-1' }],
    ['{first name|}', { fallback: '' }],
    ['{weather}', { known: null, isAsked: false }],
  ])('has in %s a gap', (text, gap) => {
    expect(piecesOf(text)).toMatchObject([{ kind: 'gap', ...gap }]);
  });

  it.each([
    ['{', 'unclosed'],
    ['{first name', 'unclosed'],
    ['{first\nname}', 'unclosed'],
    ['{first {name}}', 'nested'],
    ['}', 'stray'],
    ['{}', 'empty'],
    ['{ |there}', 'empty'],
  ])('has in %j braces that make none', (text, why) => {
    expect(piecesOf(text)[0]).toMatchObject({ kind: 'broken', why });
  });

  it('are no longer than what anybody would call something, so that a brace takes no letter with it', () => {
    const inside = 'a'.repeat(GAP_LONGEST - 2);
    expect(piecesOf(`{${inside}}`)[0]?.kind).toBe('gap');
    expect(piecesOf(`{${inside}a}`)[0]).toMatchObject({ kind: 'broken', why: 'unclosed' });
  });

  it('is filled with what is known, with fallbacks otherwise, and keeps open what is neither', () => {
    const text = 'Hi {first name|there}, {order number?} by {next opening}. {my name}';
    const filled = fillIn(text, { 'first name': 'Ada', 'my name': 'Maren' });
    expect(filled.text).toBe('Hi Ada, {order number?} by {next opening}. Maren');
    expect(filled.stops.map(({ name, isOpen }) => [name, isOpen])).toEqual([
      ['order number?', true],
      ['next opening', true],
    ]);
    for (const { from, to } of filled.stops)
      expect(filled.text.slice(from, to)).toMatch(/^\{.*\}$/);
    expect(fillIn(text, {}).text).toMatch(/^Hi there, /);
  });

  it('stops at what is asked for, also where a fallback stands there already', () => {
    const { text, stops } = fillIn('Size {size?|M} it is', {});
    expect(text).toBe('Size M it is');
    expect(stops).toEqual([{ from: 5, to: 6, name: 'size?', isOpen: false }]);
    expect(openGaps(text)).toEqual([]);
  });

  it('keeps open what nobody knows, also where a fallback stands in it', () => {
    expect(fillIn('It is {weather|sunny} here', {})).toMatchObject({
      text: 'It is {weather|sunny} here',
      stops: [{ name: 'weather', isOpen: true }],
    });
  });

  it('leaves no blank behind where the fallback is nothing', () => {
    expect(fillIn('Hello {first name|}, yes', {}).text).toBe('Hello, yes');
    expect(fillIn('Hello {first name|} yes', {}).text).toBe('Hello yes');
    expect(fillIn('Bye {first name|}', {}).text).toBe('Bye');
  });

  it('is the same text where it has no braces, and never fills a value anew', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const plain = text.replace(/[{}]/g, '');
        expect(fillIn(plain, { 'first name': 'x' })).toEqual({ text: plain, stops: [] });
      }),
    );
    expect(fillIn('{first name}', { 'first name': '{page}', page: 'P' }).text).toBe('{page}');
  });

  it('holds back what is open when it is sent, and says which', () => {
    const open = (text: string) => openGaps(text).map(({ name }) => name);
    expect(open('Hi {first name}, {weather}')).toEqual(['first name', 'weather']);
    expect(open('{first name|there}')).toEqual(['first name']);
    expect(open('{first {name}}')).toEqual(['first {name}']);
    expect(open('Hi {first name')).toEqual(['first']);
    expect(open('f(x) = {\n a\n} and {}')).toEqual([]);
  });
});

describe('a stored text in a list', () => {
  it('has its gaps by their names, on one line', () => {
    expect(briefOf('Hi {first name|there},\n\n{order  number?} {x')).toBe(
      'Hi ‹first name›, ‹order number?› {x',
    );
  });
});

describe('what a stored text says by itself', () => {
  it('is all of it but its gaps', () => {
    expect(withoutGaps('Hi {first name|there}, {x')).toBe('Hi  , {x');
  });
});

describe('the name of a gap', () => {
  it('is understood in other languages, and nothing is guessed', () => {
    expect(gapCalled(' PRÉNOM ')).toBe('first name');
    expect(gapCalled('pre\u0301nom')).toBe('first name');
    expect(gapCalled('nächste  Öffnung')).toBe('next opening');
    expect(gapCalled('order')).toBeNull();
  });
});

describe('by what somebody is greeted', () => {
  it.each([
    ['Ada Lindqvist', 'Ada'],
    ['Dr. Ada Lindqvist', 'Ada'],
    ['Jean-Luc', 'Jean-Luc'],
    ['O’Neil Smith', 'O’Neil'],
    ['Åsa', 'Åsa'],
    ['Old Oak Café', null],
    ['Fern & Co.', null],
    ['Mrs Thorne', null],
    ['wren_77', null],
    ['A. Smith', null],
    ['🌿'.repeat(300), null],
    ['', null],
    ['x'.repeat(60), null],
  ])('is, of %s, %s', (name, first) => {
    expect(firstNameOf(name)).toBe(first);
  });
});

describe('a code behind two dots', () => {
  it.each([
    ['..ho', { from: 0, to: 4, code: 'ho' }],
    ['Hi ..Hours', { from: 3, to: 10, code: 'hours' }],
    ['Hi\n..', { from: 3, to: 5, code: '' }],
    ['..öffnung', { code: 'öffnung' }],
  ])('is seen in %j', (text, seen) => {
    expect(codeAt(text, text.length)).toMatchObject(seen);
  });

  it.each(['hm..well', 'wait ...', 'wait .. ', 'Hi ..ho!', `..${'x'.repeat(21)}`, '.', ''])(
    'is not seen in %j',
    (text) => {
      expect(codeAt(text, text.length)).toBeNull();
    },
  );

  it('is seen where the cursor is, whatever stands behind it', () => {
    expect(codeAt('..ho and more', 4)).toMatchObject({ from: 0, to: 4 });
    expect(codeAt('..ho and more', 8)).toBeNull();
  });

  it('is kept as it can be typed', () => {
    expect(cleanCode(' Opening  Hours! ')).toBe('opening-hours');
    expect(cleanCode('..')).toBe('');
    expect(codeAt(`..${cleanCode('Größe & Länge, alle 2026')}`, 22)).not.toBeNull();
  });
});

describe('an answer that is to be stored', () => {
  const facts = {
    'first name': 'Ada',
    business: 'Quillfern Nursery',
    'my name': 'Maren',
    page: 'Care',
  };

  it('has gaps in place of what concerned one person', () => {
    const answer = 'Hi Ada, QF-1101 left today. Adam says hello. Maren, Quillfern Nursery';
    expect(toStored(answer, facts)).toBe(
      'Hi {first name|there}, {order number?} left today. Adam says hello. {my name}, {business}',
    );
    expect(toStored('Dear Ada Lindqvist', { ...facts, name: 'Ada Lindqvist' })).toBe(
      'Dear {first name|there}',
    );
  });

  it('keeps plain numbers and prices, and loses braces', () => {
    expect(toStored('£14.50, 20 cm {x}', {})).toBe('£14.50, 20 cm x');
  });

  it('is filled for the same person to what it was', () => {
    const answer = 'Hi Ada, from Maren of Quillfern Nursery';
    expect(fillIn(toStored(answer, facts), facts).text).toBe(answer);
  });

  it('has a title of its first words, and a code that is free', () => {
    expect(titleFor('Yes, we do deliver. Within ten miles.')).toBe('Yes, we do deliver');
    expect(titleFor('word '.repeat(40)).length).toBeLessThanOrEqual(60);
    expect(codeFor('Our opening hours', () => false)).toBe('opening');
    expect(codeFor('Our opening hours', (code) => code === 'opening')).toBe('opening-2');
    expect(codeFor('!!', () => false)).toBe('');
  });
});

describe('finding a quick reply', () => {
  const reply = (id: string, code: string, title: string, usedCount = 0, isOwn = false) => ({
    id,
    code,
    title,
    usedCount,
    isOwn,
    group: 'Shop',
    text: `We say ${title}`,
  });
  const index = indexReplies([
    reply('a', 'hours', 'Opening hours', 3),
    reply('b', 'holiday', 'Closed for holidays', 9),
    reply('c', 'h', 'Hello', 1),
    reply('d', 'care', 'House plant care', 5),
    reply('e', 'hot', 'Heat wave', 0, true),
  ]);
  const ids = (found: readonly { id: string }[]) => found.map(({ id }) => id).join('');

  it('gives the code itself first, then codes that begin so, one’s own first, then titles', () => {
    expect(ids(index.behindDots('h', 10))).toBe('cebad');
    expect(ids(index.behindDots('ho', 10))).toBe('ebad');
    expect(ids(index.behindDots('', 2))).toBe('bd');
    expect(ids(index.behindDots('zzz', 10))).toBe('');
  });

  it('searches in all of it, most used first', () => {
    expect(ids(index.search('clo'))).toBe('b');
    expect(ids(index.search('say ho'))).toBe('bdae');
    expect(ids(index.search(''))).toBe('bdace');
    expect(ids(index.search('say nothing'))).toBe('');
  });
});
