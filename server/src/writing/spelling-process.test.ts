import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { spellingProcess } from './spelling-process';

/** Instead of dictionaries: it finds every word unknown, and ends where it is asked about "end". */
const madeUp = `process.on('message', ({ words }) => {
  if (words.includes('end')) process.exit(1);
  process.send(words.map((word) => ({ word, instead: [String(process.pid)] })));
});
process.on('disconnect', () => process.exit(0));
`;

describe('dictionaries in a process of their own', () => {
  let dir: string;
  let script: string;
  beforeAll(() => {
    mkdirSync('.built', { recursive: true });
    dir = mkdtempSync(join(process.cwd(), '.built/speller-'));
    script = join(dir, 'speller.mjs');
    writeFileSync(script, madeUp);
  });
  afterAll(() => rmSync(dir, { recursive: true, force: true }));

  const ask = (spell: ReturnType<typeof spellingProcess>, ...words: string[]) =>
    spell({ dictionary: 'en-gb', words });

  it('are asked one after the other, each answer to its own question', async () => {
    const spell = spellingProcess(script);
    const answers = await Promise.all(['one', 'two', 'three'].map((word) => ask(spell, word)));
    expect(answers.map((found) => found?.[0]?.word)).toEqual(['one', 'two', 'three']);
    expect(new Set(answers.map((found) => found?.[0]?.instead[0])).size).toBe(1);
    spell.end();
  });

  it('say nothing where the process ends, and are there again for the next question', async () => {
    const spell = spellingProcess(script);
    const [before, gone, after] = await Promise.all([
      ask(spell, 'before'),
      ask(spell, 'end'),
      ask(spell, 'after'),
    ]);
    expect([before?.[0]?.word, gone, after?.[0]?.word]).toEqual(['before', null, 'after']);
    spell.end();
  });

  it('answer what is asked at the moment in which they were ended for want of work', async () => {
    const spell = spellingProcess(script);
    await ask(spell, 'before');
    spell.end();
    expect((await ask(spell, 'after'))?.[0]?.word).toBe('after');
    spell.end();
  });
});
