import { frameAncestors, isListed, toSite } from '.';

describe('a website as its owner types it', () => {
  it.each([
    ['quillfern.example', 'quillfern.example'],
    ['https://www.Quillfern.EXAMPLE/shop?x=1#top', 'quillfern.example'],
    ['HTTP://quillfern.example:8080/', 'quillfern.example:8080'],
    ['localhost:4870', 'localhost:4870'],
    ['http://127.0.0.1:4870', '127.0.0.1:4870'],
    [' gärtnerei.example ', 'xn--grtnerei-0za.example'],
  ])('%j is the site %j', (typed, site) => expect(toSite(typed)).toBe(site));

  it.each([
    '',
    'not a site',
    'javascript:alert(1)',
    'ftp://a.example',
    'https://u:p@a.example',
    'word',
    "a.example'; script-src *",
    `${'a'.repeat(400)}.example`,
  ])('%j is none', (typed) => expect(toSite(typed)).toBeNull());
});

describe('the list of websites', () => {
  const sites = ['quillfern.example', '127.0.0.1:4870'];
  it.each([
    ['https://quillfern.example', true],
    ['http://www.quillfern.example', true],
    ['http://127.0.0.1:4870', true],
    ['http://127.0.0.1:4871', false],
    ['https://evil-quillfern.example', false],
    ['https://quillfern.example.evil.test', false],
    ['null', false],
    ['', false],
  ])('of an origin %j says %j', (origin, expected) =>
    expect(isListed(sites, origin)).toBe(expected),
  );

  it('names every form of a site as a frame ancestor, and only our own pages for an empty list', () => {
    expect(frameAncestors(['quillfern.example'])).toBe(
      "'self' https://quillfern.example http://quillfern.example https://www.quillfern.example http://www.quillfern.example",
    );
    expect(frameAncestors([])).toBe("'self'");
  });
});
