import { queryWords, relevance, SEARCH_WORDS_MOST, wordsOf } from '.';

describe('the words of a text', () => {
  it('are without case, accents and punctuation', () => {
    expect(wordsOf('Café—n°5, JALAPEÑO!')).toEqual(['cafe', 'n', '5', 'jalapeno']);
    expect(wordsOf('maren@quillfern.example')).toEqual(['maren', 'quillfern', 'example']);
    expect(wordsOf('')).toEqual([]);
  });

  it('of a query are bounded', () => {
    expect(queryWords('word '.repeat(5_000))).toHaveLength(SEARCH_WORDS_MOST);
  });
});

describe('relevance (BM25: Robertson and Zaragoza 2009, equation 3.15, with k1 = 1.2 and b = 0.75)', () => {
  const corpus = { textCount: 10, wordCount: 50, textsWith: [2] };

  it('is the formula, worked by hand for one word', () => {
    // idf = ln((10 - 2 + 0.5) / (2 + 0.5)); f = 1, |D| = 5 = average, so f·(k1+1)/(f+k1) = 1.
    const idf = Math.log(8.5 / 2.5);
    expect(relevance('one fern two three four', [['fern']], corpus)).toBeCloseTo(idf, 12);
  });

  it('prefers the shorter of two texts, the one with more mentions, and the rarer word', () => {
    const score = (text: string) => relevance(text, [['fern']], corpus);
    expect(score('a fern')).toBeGreaterThan(score('a fern that stands beside many other plants'));
    expect(score('fern and fern and')).toBeGreaterThan(score('fern and moss and'));
    const two = { ...corpus, textsWith: [1, 4] };
    expect(relevance('rare x', [['rare'], ['usual']], two)).toBeGreaterThan(
      relevance('usual x', [['rare'], ['usual']], two),
    );
  });

  it('counts whatever stands for a word of the query', () => {
    expect(relevance('monstera', [['monstera', 'monsteras']], corpus)).toBeGreaterThan(0);
    expect(relevance('ferns and fern', [['fern', 'ferns']], corpus)).toBeGreaterThan(
      relevance('ferns and moss', [['fern', 'ferns']], corpus),
    );
    expect(relevance('monstera', [['mons'], ['x']], { ...corpus, textsWith: [1, 1] })).toBe(0);
  });
});
