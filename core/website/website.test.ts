import { addressOf, frameAncestors, isListed, toSite, webAddress } from '.';

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

describe('the address of a web page', () => {
  it.each([
    'https://quillfern.example/monstera?a=b#c',
    'http://127.0.0.1:4970/',
    'HTTPS://QUILLFERN.example',
  ])('%s is kept as it is', (typed) => expect(webAddress(typed)).toBe(typed));

  it.each([
    '',
    'javascript:alert(1)',
    'quillfern.example',
    'https://',
    'https://quillfern.example@evil.example/',
    'https://quillfern.example:x@evil.example/',
  ])('%j is none', (typed) => expect(webAddress(typed)).toBeNull());
});

it('a site is to be found over TLS, but for one on this very machine', () => {
  expect(
    ['quillfern.example', '127.0.0.1:4970', 'localhost:80', '[::1]:80'].map(addressOf),
  ).toEqual([
    'https://quillfern.example',
    'http://127.0.0.1:4970',
    'http://localhost:80',
    'http://[::1]:80',
  ]);
});
