/** A browser's tab that the test plays: its storage, which other tabs write to as well, and how it hears of that. */
const openTab = () => {
  const stored = new Map<string, string>();
  const heard: (() => void)[] = [];
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, value: string) => stored.set(key, value),
    },
    addEventListener: (event: string, hear: () => void) => {
      if (event === 'storage') heard.push(hear);
    },
  });
  let choices: typeof import('./choices') | undefined;
  jest.isolateModules(() => {
    choices = require('./choices');
  });
  if (!choices) throw new Error('not loaded');
  return {
    ...choices,
    stored,
    anotherTabStores: (key: string, value: string) => {
      stored.set(key, value);
      for (const hear of heard) hear();
    },
  };
};

describe('what is chosen for this device', () => {
  const before = { localStorage: globalThis.localStorage, addEventListener: undefined };
  afterEach(() => void Object.assign(globalThis, before));

  it('is on unless it was turned off, and stays as it was chosen', () => {
    const tab = openTab();
    expect(tab.isChosen('sound')).toBe(true);
    tab.choose('sound', false);
    expect([tab.isChosen('sound'), tab.isChosen('shortcuts')]).toEqual([false, true]);
    expect(tab.stored.get('porch:sound')).toBe('off');
    tab.choose('sound', true);
    expect(tab.isChosen('sound')).toBe(true);
  });

  it('holds in every tab, in whichever it was chosen', () => {
    const tab = openTab();
    tab.anotherTabStores('porch:shortcuts', 'off');
    expect([tab.isChosen('shortcuts'), tab.isChosen('sound')]).toEqual([false, true]);
  });
});
