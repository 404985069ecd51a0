import {
  GREETINGS_MOST,
  type Greeting,
  greetingsIn,
  newGreeting,
  nextGreeting,
  type Passing,
  problemsInGreetings,
  tidyGreetings,
  triedGreeting,
} from '.';

const greeting = (change: Partial<Greeting> = {}): Greeting => ({
  ...newGreeting('ferns', 'en'),
  text: 'Looking for a fern?',
  afterSeconds: 20,
  ...change,
});

const passing = (change: Partial<Passing> = {}): Passing => ({
  path: '/ferns/boston',
  seconds: 5,
  visit: 2,
  cameFrom: 'www.search.example',
  isLit: true,
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
    ['nobody is in', {}, { isLit: false }],
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

  it('is said by whoever it is of, to those who read its language, while it is on', () => {
    const all = [
      greeting({ id: 'of-tobias', memberId: 'tobias' }),
      greeting({ id: 'off', isOn: false }),
      greeting({ id: 'german', language: 'de' }),
      greeting({ id: 'of-all' }),
    ];
    const who = (id: string | null) => ({ name: id ?? 'Quillfern', face: id && `/${id}` });
    expect(greetingsIn(all, 'en', who)).toMatchObject([
      { id: 'of-tobias', name: 'tobias', face: '/tobias' },
      { id: 'of-all', name: 'Quillfern', face: null },
    ]);
    expect(greetingsIn(all, 'en', who)[0]).not.toHaveProperty('memberId');
  });

  it('is tried whoever comes and whatever the light shows, on its own pages', () => {
    const strict = { isOn: false, visits: { least: 9, most: 9 }, cameFrom: ['map.example'] };
    const tried = triedGreeting(greeting({ ...strict, pages: ['/ferns/*'] }));
    expect(nextGreeting([tried], passing({ isLit: false }))?.inSeconds).toBe(15);
    expect(nextGreeting([tried], passing({ path: '/palms' }))).toBeNull();
    expect(tried.isOn).toBe(true);
  });

  it('is kept with its words, pages and hosts spelled one way', () => {
    const typed = { text: ' Moin\u202e\r\n', pages: ['shop/'], cameFrom: ['Map.Example'] };
    expect(tidyGreetings([greeting(typed)])).toMatchObject([
      { text: 'Moin', pages: ['/shop/'], cameFrom: ['map.example'] },
    ]);
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
