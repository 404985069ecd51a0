import Database from 'better-sqlite3';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { visit } from '../../test-kit/panel';

const texts = [
  'Is the monstera in the window still for sale?',
  'Monstera, monstera, monstera: do you have a small one?',
  'My calathea drops a leaf a day',
  'Do you deliver to Netherby on Friday with a pot for a fern and a lot of other things besides?',
  'The fern arrived, thank you',
  'A fern for a dark hall, and a pot without a hole',
  'Pot?',
  'Café and plants',
];

describe('search', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const fill = async () => {
    const { cookie, door } = await setUp(house);
    for (const [index, text] of texts.entries()) {
      const panel = await visit(house, door.publicId, `visitor${index}`);
      await panel.say(text);
    }
    const search = async (words: string) => {
      const response = await house.ask('GET', `/api/search?words=${encodeURIComponent(words)}`, {
        cookie,
      });
      return (response.body.found as { entry: { text?: string; email?: string } }[]).map(
        ({ entry }) => entry,
      );
    };
    return { door, search };
  };

  it('orders as SQLite FTS5 does by its documented bm25() (SQLite documentation, "The bm25() function")', async () => {
    const { search } = await fill();
    const reference = new Database(':memory:');
    reference.exec(
      "CREATE VIRTUAL TABLE t USING fts5(text, tokenize = 'unicode61 remove_diacritics 2')",
    );
    const insert = reference.prepare('INSERT INTO t VALUES (?)');
    for (const text of texts) insert.run(text);
    const ask = reference.prepare(
      'SELECT text FROM t WHERE t MATCH ? ORDER BY bm25(t), rowid DESC',
    );
    for (const words of ['monstera', 'fern', 'pot', 'fern pot', 'a fern', 'cafe', 'the']) {
      const expected = ask.all(words).map((row) => (row as { text: string }).text);
      expect((await search(words)).map(({ text }) => text)).toEqual(expected);
      expect(expected.length).toBeGreaterThan(0);
    }
  });

  it('finds a half-typed word, and whatever case and accents it has', async () => {
    const { search } = await fill();
    expect((await search('CALATH'))[0]?.text).toContain('calathea');
    expect((await search('café'))[0]?.text).toBe('Café and plants');
  });

  it('finds words in any order, half-typed or whole', async () => {
    const { search } = await fill();
    for (const words of ['fern hall', 'hall fern', 'HALL ferns', 'dark hall a fern', 'hal fer']) {
      expect([words, (await search(words)).length]).toEqual([words, 1]);
    }
    expect((await search('deliv netherb'))[0]?.text).toContain('Netherby');
    expect((await search('netherb deliv'))[0]?.text).toContain('Netherby');
  });

  it.each(['monstra', 'monstear', 'momstera', 'monsteera'])(
    'forgives a slip of the thumb: %s',
    async (typed) => {
      const { search } = await fill();
      expect((await search(typed)).map(({ text }) => text)).toContain(
        'Is the monstera in the window still for sale?',
      );
      expect(await search(`window ${typed}`)).toHaveLength(1);
    },
  );

  it('takes neither a word that somebody has written for a slip, nor a short one', async () => {
    const { search } = await fill();
    expect((await search('plants')).map(({ text }) => text)).toEqual(['Café and plants']);
    expect(await search('lef')).toEqual([]);
    expect(await search('pat')).toEqual([]);
  });

  it('finds a person by what they left in the guest book', async () => {
    const { door, search } = await fill();
    const panel = await visit(house, door.publicId, 'visitor2');
    panel.tell({
      do: 'details',
      id: 'details-0001',
      name: 'Wren Ashdown',
      email: 'wren@post.example',
    });
    await panel.hear('taken');
    expect((await search('ashdown'))[0]?.email).toBe('wren@post.example');
    expect((await search('wren@post.example'))[0]?.email).toBe('wren@post.example');
  });

  it.each([
    '',
    '   ',
    '"',
    '*',
    'a AND OR NOT',
    'NEAR(',
    "'; DROP TABLE words; --",
    '(((',
    '\u0000',
    'nothinglikethis',
  ])('takes %j for words, and never fails', async (words) => {
    const { search } = await fill();
    expect(Array.isArray(await search(words))).toBe(true);
  });
});
