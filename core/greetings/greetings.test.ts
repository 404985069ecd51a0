import { GREETINGS_MOST, type Greeting, nextGreeting, type Passing, problemsInGreetings } from '.';

const greeting = (change: Partial<Greeting> = {}): Greeting => ({
  id: 'ferns',
  isOn: true,
  text: 'Looking for a fern?',
  language: 'en',
  memberId: null,
  pages: [],
  afterSeconds: 20,
  visits: { least: 1, most: null },
  cameFrom: [],
  whileNotLit: false,
  ...change,
});

const passing = (change: Partial<Passing> = {}): Passing => ({
  path: '/ferns/boston',
  seconds: 5,
  visit: 2,
  language: 'en',
  cameFrom: 'www.search.example',
  isLit: true,
  wasGreeted: false,
  ...change,
});

const isSaid = (one: Partial<Greeting>, to: Partial<Passing> = {}): boolean =>
  nextGreeting([greeting(one)], passing(to)) !== null;

describe('a greeting', () => {
  it('comes so long after somebody came to the page, and at once where that has passed', () => {
    const inSeconds = (seconds: number) =>
      nextGreeting([greeting()], passing({ seconds }))?.inSeconds;
    expect([inSeconds(0), inSeconds(19.5), inSeconds(60)]).toEqual([20, 0.5, 0]);
  });

  it.each([
    ['it is off', { isOn: false }, {}],
    ['they were greeted in this visit', {}, { wasGreeted: true }],
    ['nobody is in', {}, { isLit: false }],
    ['they read another language', {}, { language: 'de' }],
    ['the page is another', { pages: ['/palms/*'] }, {}],
    ['they come too seldom', { visits: { least: 3, most: null } }, {}],
    ['they come too often', { visits: { least: 1, most: 1 } }, {}],
    ['they came from elsewhere', { cameFrom: ['map.example'] }, {}],
    ['they came from a host that only ends alike', { cameFrom: ['arch.example'] }, {}],
    ['it is not known from where they came', { cameFrom: ['map.example'] }, { cameFrom: '' }],
  ])('is not said where %s', (_where, one, to) => {
    expect(isSaid(one, to)).toBe(false);
  });

  it.each([
    ['one of its pages', { pages: ['/palms', '/ferns/*'] }, {}],
    ['the visit that it is for', { visits: { least: 2, most: 2 } }, {}],
    ['a host of which theirs is a part', { cameFrom: ['Search.example'] }, {}],
    ['the dark, where it is allowed', { whileNotLit: true }, { isLit: false }],
  ])('is said on %s', (_where, one, to) => {
    expect(isSaid(one, to)).toBe(true);
  });

  it('is the one that waits least, and of those the first', () => {
    const all = [
      greeting({ id: 'late', afterSeconds: 40 }),
      greeting({ id: 'first' }),
      greeting({ id: 'second' }),
    ];
    expect(nextGreeting(all, passing())?.greeting.id).toBe('first');
    expect(all.map(({ id }) => id)).toEqual(['late', 'first', 'second']);
    expect(nextGreeting([], passing())).toBeNull();
  });

  it.each([
    ['words', { text: ' ' }, 'text empty'],
    ['fewer words', { text: 'x'.repeat(201) }, 'text too-long'],
    ['pages', { pages: [''] }, 'pages not-understood'],
    ['fewer pages', { pages: Array(21).fill('/x') }, 'pages too-many'],
    ['a wait that ends', { afterSeconds: 601 }, 'afterSeconds out-of-range'],
    ['a whole number of seconds', { afterSeconds: 1.5 }, 'afterSeconds out-of-range'],
    ['a first visit', { visits: { least: 0, most: null } }, 'visits out-of-range'],
    ['visits in order', { visits: { least: 3, most: 2 } }, 'visits out-of-range'],
    ['hosts', { cameFrom: ['https://map.example/x'] }, 'cameFrom not-understood'],
  ])('needs %s', (_what, change, problem) => {
    const problems = problemsInGreetings([greeting(change)]);
    expect(problems.map(({ id, part, code }) => `${id} ${part} ${code}`)).toEqual([
      `ferns ${problem}`,
    ]);
  });

  it('is one of so many', () => {
    const many = (count: number) => problemsInGreetings(Array(count).fill(greeting()));
    expect(many(GREETINGS_MOST)).toEqual([]);
    expect(many(GREETINGS_MOST + 1)).toEqual([{ id: '', part: '', code: 'too-many' }]);
  });
});
