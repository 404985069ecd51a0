import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { bestOf, languages, type Wording } from './wording';

const source = join(__dirname, '..');
const files = readdirSync(source, { recursive: true, encoding: 'utf8' });
const subjects = files.filter((file) => /(^|\/)words\/index\.ts$/.test(file));
const modules = files.filter(
  (file) => /^(kit|shell|features)\/.*\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file),
);

/** What a table is made of: its keys, and at the end of each whether it is a text, or a sentence with so many gaps. */
const shapeOf = (table: unknown): unknown => {
  if (typeof table === 'function') return `a sentence with ${table.length} gaps`;
  if (Array.isArray(table)) return table.map(shapeOf);
  if (typeof table !== 'object' || table === null) return typeof table;
  return Object.fromEntries(Object.entries(table).map(([key, one]) => [key, shapeOf(one)]));
};

const wordingIn = (file: string): Wording<object> => {
  const [words] = Object.values(require(join(source, file))) as Wording<object>[];
  if (!words) throw new Error(`${file} has no wording`);
  return words;
};

describe('the wording of the app', () => {
  it('is there for every subject that draws', () => {
    const drawing = new Set(
      files.flatMap((file) => file.match(/^(features\/[^/]+|kit|shell)\/.*\.tsx$/)?.[1] ?? []),
    );
    expect(drawing.size).toBeGreaterThan(10);
    expect(
      [...drawing].filter((subject) => !subjects.includes(`${subject}/words/index.ts`)),
    ).toEqual([]);
  });

  it.each(subjects)('is complete and of one shape in every language: %s', (file) => {
    const { tables } = wordingIn(file);
    expect(Object.keys(tables)).toEqual([...languages]);
    const [first, ...others] = languages.map((language) => shapeOf(tables[language]));
    for (const other of others) expect(other).toEqual(first);
  });

  it('is chosen when something is drawn, and not when a module loads', () => {
    expect(modules.length).toBeGreaterThan(100);
    jest.isolateModules(() => {
      const { wording } = require('./wording') as typeof import('./wording');
      expect(() => wording({ en: { hello: 'Hello' } })()).toThrow(/before a language was chosen/);
      // Nobody has chosen a language here: whoever asks for wording on loading fails.
      for (const file of modules) require(join(source, file));
    });
  });
});

describe('the language that is spoken', () => {
  it('is the first of somebody’s own that we speak, and English where there is none', () => {
    expect(bestOf(['fr-FR', 'EN-gb'])).toBe('en');
    expect(bestOf(['xx'])).toBe('en');
    expect(bestOf([])).toBe('en');
  });
});
