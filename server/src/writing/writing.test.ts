import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import nspell from 'nspell';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { createSpeller } from './speller';

/** Second implementation: nspell, by the maintainers of the dictionaries. */
const byNspell = (words: readonly string[]): string[] => {
  const folder = dirname(require.resolve('dictionary-en-gb'));
  const [aff, dic] = ['index.aff', 'index.dic'].map((file) => readFileSync(join(folder, file)));
  const other = nspell(aff ?? Buffer.alloc(0), dic ?? Buffer.alloc(0));
  return words.filter((word) => !other.correct(word));
};

describe('spelling', () => {
  const spell = createSpeller(require.resolve);

  it('finds what another implementation finds with the same dictionary', async () => {
    const text =
      'We recieve new plants on thursdays and their colour is definately nice. Monstera leafs dont like teh cold, ' +
      'neither do ficus or calathea; we’ve repotted them in september. Its soil is moist, acommodating and alot lighter.';
    const words = [...new Set(text.match(/[A-Za-z’]+/g) ?? [])].map((one) => one.replace('’', "'"));
    const found = (await spell({ dictionary: 'en-gb', words })) ?? [];
    expect(found.map(({ word }) => word)).toEqual(byNspell(words));
    expect(found.find(({ word }) => word === 'recieve')?.instead[0]).toBe('receive');
  });

  it.each([
    ['en', 'color', 'colour'],
    ['en-gb', 'colour', 'color'],
    ['de', 'Straße', 'Strasse'],
    ['fr', 'bientôt', 'bientot'],
    ['es', 'mañana', 'manyana'],
    ['it', 'perché', 'perchè'],
    ['nl', 'gezellig', 'gezelig'],
    ['pl', 'żółty', 'żółti'],
    ['pt', 'amanhã', 'amanhâ'],
  ] as const)('knows %s', async (dictionary, right, wrong) => {
    const found = await spell({ dictionary, words: [right, wrong] });
    expect(found?.map(({ word }) => word)).toEqual([wrong]);
  });
});

describe('what is written to be sent many times', () => {
  let site: Server;
  let house: House;
  let cookie: string;
  let origin: string;
  beforeAll(async () => {
    site = createServer((request, response) => {
      response.statusCode = request.url === '/there' ? 200 : request.url === '/gone' ? 410 : 404;
      response.end();
    });
    await new Promise<void>((done) => site.listen(0, '127.0.0.1', done));
    origin = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
    house = await openHouse({ worldNear: [origin] }, ':memory:', {
      spell: createSpeller(require.resolve),
    });
    ({ cookie } = await setUp(house));
  });
  afterAll(async () => {
    await house.close();
    site.close();
  });

  const lookThrough = async (text: string, language = 'en') =>
    (await house.ask('POST', '/api/looked-through', { cookie, body: { text, language } })).body;
  const ownWords = async (add: string[], drop: string[] = []) =>
    (await house.ask('PUT', '/api/own-words', { cookie, body: { add, drop } })).body;

  it('is looked through for words that the dictionary does not have, by their places', async () => {
    const text = 'Hi {frist name|thre}, teh plant is by teh window';
    const { found, isSpelled } = await lookThrough(text);
    expect(isSpelled).toBe(true);
    expect(found.map(({ from, to }: { from: number; to: number }) => text.slice(from, to))).toEqual(
      ['teh', 'teh'],
    );
    expect(found[0].instead).toContain('the');
  });

  it('may have words of the business’s own, however they are written', async () => {
    const unknown = async () =>
      (await lookThrough('A quillfern’s Pilea')).found.map(({ words }: { words: string }) => words);
    expect(await unknown()).toEqual(['quillfern’s', 'Pilea']);
    expect(await ownWords(['pilea', " Quillfern's "])).toEqual({ words: ["Quillfern's", 'pilea'] });
    expect(await unknown()).toEqual([]);
    await ownWords([], ['pilea']);
    expect(await unknown()).toEqual(['Pilea']);
  });

  it('is said not to be spelled where there is no dictionary, and nothing is found', async () => {
    expect(await lookThrough('qwertz', 'tlh')).toEqual({ found: [], isSpelled: false });
  });

  it('asks nothing near us for a link, also where the owner’s networks may be', async () => {
    const near = await openHouse({ networksNear: [origin] });
    const { cookie: other } = await setUp(near);
    const body = { text: `See ${origin}/gone`, language: 'en' };
    const looked = await near.ask('POST', '/api/looked-through', { cookie: other, body });
    expect(looked.body.found.filter(({ kind }: { kind: string }) => kind === 'link')).toEqual([]);
    await near.close();
  });

  it('has links pointed out that lead nowhere, and no others', async () => {
    const text = `See ${origin}/there and ${origin}/gone, ${origin}/never, http://127.0.0.1:1/x, ${origin}/{page}`;
    const { found } = await lookThrough(text);
    const links = found.filter(({ kind }: { kind: string }) => kind === 'link');
    expect(links.map(({ words }: { words: string }) => words)).toEqual([
      `${origin}/gone`,
      `${origin}/never`,
    ]);
  });

  it('has at most so many words of its own', async () => {
    const many = Array.from({ length: 2_000 }, (_none, at) => `word${at}`);
    expect(await ownWords([...many, 'more'])).toMatchObject({ code: 'bad-request' });
    const before = (await ownWords([])).words;
    expect(await ownWords(many)).toMatchObject({ code: 'too-many-of-these', limit: 2_000 });
    expect((await ownWords([])).words).toEqual(before);
  });
});
