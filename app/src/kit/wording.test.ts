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

/** Every sentence of a table, with its gaps filled; a refusal fills its own, and has a test of its own. */
const sentencesIn = (table: unknown): string[] => {
  if (typeof table === 'string') return [table];
  if (typeof table === 'function') return [String(table(...Array(table.length).fill(3)))];
  return Object.entries(table as object).flatMap(([key, one]) =>
    key === 'refusal' ? [] : sentencesIn(one),
  );
};

/** Each says something, and nothing that was only meant for programs. */
const wellSaid = expect.not.arrayContaining([
  expect.stringMatching(/^\s*$|undefined|NaN|\[object/),
]);

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
    const shapes = languages.map((language) => shapeOf(tables[language]));
    expect(shapes).toEqual(languages.map(() => shapes[0]));
    for (const language of languages) expect(sentencesIn(tables[language])).toEqual(wellSaid);
  });

  it.each([
    ['a sentence is missing', { hello: 'Hello' }, { hello: 'Hallo', more: 'Mehr' }],
    ['a gap is missing', { hello: (_name: string) => 'Hello' }, { hello: () => 'Hallo' }],
    ['a list is shorter', { steps: ['One', 'Two'] }, { steps: ['Eins'] }],
  ])('is of another shape where %s', (_what, one, other) => {
    expect(shapeOf(one)).not.toEqual(shapeOf(other));
  });

  it.each([
    ['is empty', { hello: ' ' }],
    ['forgets what it was given', { hello: (_name: string, _time: string) => 'undefined' }],
  ])('is not well said where a sentence %s', (_what, table) => {
    expect(sentencesIn(table)).not.toEqual(wellSaid);
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
