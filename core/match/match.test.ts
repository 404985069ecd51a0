import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { stemmer as dutch } from '@orama/stemmers/dutch';
import { stemmer as french } from '@orama/stemmers/french';
import { stemmer as german } from '@orama/stemmers/german';
import { stemmer as italian } from '@orama/stemmers/italian';
import { stemmer as portuguese } from '@orama/stemmers/portuguese';
import { stemmer as spanish } from '@orama/stemmers/spanish';
import { newStemmer } from 'snowball-stemmers';
import { createMatching, fits, idfOf, isSlipOf, saturated, tokensOf } from '.';

const stems = (text: string, language = 'en') => tokensOf(text, language).map(({ stem }) => stem);

describe('the words of a text', () => {
  it('are those that say what it is about, by their stems and places', () => {
    const text = 'Hello! Do you deliver the ferns to Larkhope’s market, please?';
    const tokens = tokensOf(text, 'en');
    expect(tokens.map(({ from, to }) => text.slice(from, to))).toEqual([
      'deliver',
      'ferns',
      'Larkhope’s',
      'market',
    ]);
    expect(stems(text)).toEqual(['deliv', 'fern', 'larkhop', 'market']);
  });

  it.each([
    ['de', 'Wie lange habt ihr geöffnet?', 'Öffnungszeiten und geoffnete Türen'],
    ['fr', 'Livrez-vous à domicile ?', 'livrer'],
    ['pl', 'Czy macie paproć?', 'PAPROĆ'],
  ])('meet in %s however they are written', (language, question, text) => {
    const asked = stems(question, language);
    expect(asked.length).toBeGreaterThan(0);
    expect(stems(text, language).some((one) => asked.includes(one))).toBe(true);
  });

  it('of a language that nobody knows are taken as they are', () => {
    expect(stems('nuqneH the Daj', 'tlh')).toEqual(['nuqneh', 'the', 'daj']);
  });

  it('are none where nothing is said', () => {
    for (const text of ['', '👍', '????', 'Hi', 'Thank you!']) expect(stems(text)).toEqual([]);
  });
});

// The package is held against another build of Snowball, with words out of the dictionaries.
describe('stems', () => {
  it.each([
    ['german', 'de', german],
    ['spanish', 'es', spanish],
    ['french', 'fr', french],
    ['italian', 'it', italian],
    ['dutch', 'nl', dutch],
    ['portuguese', 'pt', portuguese],
  ])('in %s are those of the other build', (algorithm, dictionary, other) => {
    const folder = dirname(require.resolve(`dictionary-${dictionary}`));
    const words = readFileSync(join(folder, 'index.dic'), 'utf8')
      .split('\n')
      .slice(1)
      .map((line) => line.split('/')[0] ?? '')
      .filter((word) => /^\p{Ll}{3,}$/u.test(word))
      .filter((_word, at) => at % 40 === 0)
      .slice(0, 1_000);
    expect(words.length).toBeGreaterThan(400);
    const ours = newStemmer(algorithm);
    const different = words.filter((word) => ours.stem(word) !== other(word));
    expect({
      different: different.slice(0, 10),
      share: different.length / words.length < 0.02,
    }).toMatchObject({
      share: true,
    });
  });
});

// The sample beside the algorithm's description (snowballstem.org, "English (Porter2)"), written from memory.
describe('stems in English', () => {
  it.each([
    ['consign', 'consign consigned consigning consignment'],
    ['consist', 'consist consisted consistency consistent consistently consisting consists'],
    ['consol', 'consolation consolations console consoled consoles'],
    ['consolid', 'consolidate consolidated consolidating'],
    ['knackeri', 'knackeries'],
    ['knave', 'knave knaves'],
    ['knight', 'knight knightly knights'],
  ])('are %s of %s', (stem, words) => {
    const english = newStemmer('english');
    for (const word of words.split(' ')) expect([word, english.stem(word)]).toEqual([word, stem]);
  });
});

describe('BM25', () => {
  // Robertson and Zaragoza 2009, "The Probabilistic Relevance Framework", 3.1 and 3.3, worked out by hand with k1 = 1.2
  // and b = 0.2: of 10 texts 3 have the word; it stands twice in one of 30 words, where 20 are usual.
  it('weighs a word and saturates it as the formula says', () => {
    expect(idfOf(10, 3)).toBeCloseTo(Math.log(1 + 7.5 / 3.5), 12);
    expect(idfOf(10, 3)).toBeCloseTo(1.145132, 5);
    expect(saturated(2, 30, 20)).toBeCloseTo(4.4 / (2 + 1.2 * 1.1), 12);
    expect(saturated(2, 30, 20)).toBeCloseTo(1.325301, 5);
    expect(saturated(1, 20, 20)).toBeCloseTo(1, 12);
  });

  it('orders texts by it, and says what both have', () => {
    const matching = createMatching();
    const add = (id: string, text: string) =>
      matching.add({ id, language: 'en', fields: [{ text, weight: 1 }] });
    add('a', 'Delivery costs four pounds');
    add('b', 'Delivery takes two days by van');
    add('c', 'The van is blue');
    const found = matching.best('when does the van deliver, in days?', 3);
    expect(found.map(({ id }) => id)).toEqual(['b', 'c', 'a']);
    expect([...(found[0]?.stems ?? [])].sort()).toEqual(['day', 'deliveri', 'van']);
    expect(matching.best('nothing of this', 3)).toEqual([]);
    expect(matching.best('', 3)).toEqual([]);
  });

  it('keeps languages apart', () => {
    const matching = createMatching();
    matching.add({ id: 'en', language: 'en', fields: [{ text: 'gift voucher', weight: 1 }] });
    matching.add({ id: 'de', language: 'de', fields: [{ text: 'Gift ist giftig', weight: 1 }] });
    const ids = (question: string) => matching.best(question, 5).map(({ id }) => id);
    expect(ids('Gutschein')).toEqual([]);
    expect(ids('voucher')).toEqual(['en']);
    expect(ids('giftige')).toContain('de');
  });
});

describe('a slip of the thumb', () => {
  it.each([
    ['openning', 'opening', true],
    ['delvery', 'delivery', true],
    ['watre', 'water', true],
    ['wster', 'water', true],
    ['wate', 'water', true],
    ['water', 'water', false],
    ['wtaer', 'waters', false],
    ['cat', 'cats', false],
    ['ferns', 'plant', false],
  ])('%s for %s: %s', (typed, meant, isSlip) => {
    expect(isSlipOf(typed, meant)).toBe(isSlip);
  });
});

describe('what is offered', () => {
  const matching = createMatching();
  for (let at = 0; at < 40; at += 1) {
    const fields = [{ text: `subject${at} and matter${at}`, weight: 1 }];
    matching.add({ id: `text-${at}`, language: 'en', fields });
  }
  const offered = (question: string) => fits(matching.best(question, 9), 3).map(({ id }) => id);

  it('is what fits, and nothing under the threshold', () => {
    expect(offered('subject7 matter7?')).toEqual(['text-7']);
    expect(offered('a long story of everything that happened on the way, then subject7')).toEqual(
      [],
    );
    expect(offered('Thanks a lot')).toEqual([]);
  });
});
