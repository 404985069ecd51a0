import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { stemmer as dutch } from '@orama/stemmers/dutch';
import { stemmer as french } from '@orama/stemmers/french';
import { stemmer as german } from '@orama/stemmers/german';
import { stemmer as italian } from '@orama/stemmers/italian';
import { stemmer as portuguese } from '@orama/stemmers/portuguese';
import { stemmer as spanish } from '@orama/stemmers/spanish';
import { newStemmer } from 'snowball-stemmers';
import {
  createMatching,
  type Evidence,
  FIT_LEAST,
  fitOf,
  fits,
  idfOf,
  isPitch,
  isSlipOf,
  saturated,
  tokensOf,
} from '.';
import { partsOf } from './compounds';

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

describe('what is meant', () => {
  const matching = createMatching();
  const add = (id: string, language: string, text: string, asked: string[] = []) =>
    matching.add({ id, language, fields: [{ text, weight: 1 }], asked });
  add('cost', 'en', 'Delivery costs four pounds');
  add('open', 'en', 'Opening times', ['can I pop in after work']);
  add('dogs', 'en', 'Dogs are welcome on a lead');
  add('versand', 'de', 'Was kostet der Versand?');
  add('garten', 'de', 'Becher für den Garten');
  const first = (question: string) => matching.best(question, 1)[0];

  it('is found by other words for it, and by turns of speech', () => {
    expect(first('what do you charge for postage?')?.id).toBe('cost');
    expect(first('how much is it')?.id).toBe('cost');
    expect(first('when do you shut')?.id).toBe('open');
    expect(first('puppy?')?.id).toBe('dogs');
    // Marked are the words that the text has, not those that were asked by.
    expect([...(first('postage?')?.stems ?? [])]).toEqual(['deliveri']);
  });

  it('is found in words that are put together', () => {
    expect(first('Versandkosten?')?.id).toBe('versand');
    expect([...(first('Versandkosten?')?.stems ?? [])].sort()).toEqual(['kostet', 'versand']);
    expect(first('Anzuchtbecher')?.id).toBe('garten');
  });

  it('is surer where the same was asked before, and only then', () => {
    const asked = first('could I pop in after work?');
    expect(asked?.id).toBe('open');
    expect(asked?.fit).toBeGreaterThan(FIT_LEAST);
    expect(first('my aunt works with a lovely choir and a bakery')?.fit ?? 0).toBeLessThan(
      FIT_LEAST,
    );
  });
});

describe('the parts of a word', () => {
  const known = new Set(['versand', 'kost', 'geburtstag', 'kart', 'becher', 'topf']);
  const parts = (word: string, language = 'de') =>
    partsOf(word, language, (stem) => known.has(stem), newStemmer('german').stem);
  it.each([
    ['versandkost', ['versand', 'kost']],
    ['geburtstagskart', ['geburtstag', 'kart']],
    ['anzuchtbecher', ['becher']],
    ['versandhaus', ['versand']],
    ['topf', []],
    ['entkost', []],
    ['unbekannt', []],
  ])('of %s are %j', (word, expected) => expect(parts(word)).toEqual(expected));

  it('are none in a language that puts none together', () => {
    expect(parts('versandkost', 'en')).toEqual([]);
  });
});

describe('who sells something', () => {
  it.each([
    ['Claim your £500 gift voucher now: click the link', true],
    ['Herzlichen Glückwunsch, Sie haben gewonnen', true],
    ['We improve the ranking of your site in every search engine', true],
    ['Can I claim my money back?', false],
    ['Where do I click to order?', false],
    ['Haben Sie den Farn, den ich gewonnen habe?', false],
    ['', false],
  ])('%s: %s', (text, isOne) => expect(isPitch(text)).toBe(isOne));
});

describe('how likely it is that a text answers', () => {
  const evidence: Evidence = { answered: 0.5, weight: 0.5, literal: 1, title: 0.5, likeness: 0 };
  it.each(['answered', 'weight', 'title', 'likeness'] as const)(
    'is the more the more of it is %s',
    (which) => {
      const with0 = (value: number) => fitOf({ ...evidence, [which]: value });
      expect(with0(0.9)).toBeGreaterThan(with0(0.5));
      expect(with0(0.5)).toBeGreaterThan(with0(0.1));
    },
  );

  it('is between nothing and one, whatever speaks for it', () => {
    for (const value of [0, 1, 1e9]) {
      const fit = fitOf({ answered: value, weight: value, literal: 0, title: value, likeness: 1 });
      expect(fit).toBeGreaterThanOrEqual(0);
      expect(fit).toBeLessThanOrEqual(1);
    }
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
