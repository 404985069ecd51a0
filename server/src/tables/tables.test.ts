import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { rowsOf, separatorOf, textOf } from './reading';
import { toCsv } from './writing';

const read = async (text: string | Buffer, needed = 'aaa') => {
  const rows: Record<string, string>[] = [];
  for await (const { cells } of rowsOf(Buffer.from(text as string), needed))
    rows.push({ ...cells });
  return rows;
};

/** What Python's own module for CSV makes of texts, or writes of rows: nothing of it is ours. */
const python = <Answer>(script: string, input: unknown): Answer =>
  JSON.parse(
    execFileSync(
      'python3',
      ['-c', `import csv, io, json, sys\ndata = json.load(sys.stdin)\n${script}`],
      {
        input: JSON.stringify(input),
        encoding: 'utf8',
        maxBuffer: 64 * 1024 * 1024,
      },
    ),
  );
const readByPython = (texts: readonly string[]): string[][][] =>
  python(
    'json.dump([list(csv.reader(io.StringIO(t, newline=""))) for t in data], sys.stdout)',
    texts,
  );
const writtenByPython = (tables: readonly string[][][]): string[] =>
  python(
    `def written(rows):
  out = io.StringIO(newline="")
  csv.writer(out).writerows(rows)
  return out.getvalue()
json.dump([written(t) for t in data], sys.stdout)`,
    tables,
  );

const MANY = 150;
const COLUMNS = ['aaa', 'bbb', 'ccc'];
const hard = fc.oneof(
  fc.string({ maxLength: 20, unit: 'grapheme' }),
  fc.stringMatching(/^[ab",;\n\r|\t=+@-]{0,12}$/),
);
const table = (cell: fc.Arbitrary<string>) =>
  fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 8 });
const sampled = (cell: fc.Arbitrary<string>): string[][][] =>
  fc.sample(table(cell), { numRuns: MANY, seed: 20_261_128 });
/** What our own tables put before a cell that a spreadsheet would reckon. */
const guarded = (cell: string): string =>
  /^[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/.test(cell) ? `'${cell}` : cell;

describe('tables as text (RFC 4180)', () => {
  it.each([
    ['1: each record on a line of its own', 'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n'],
    ['2: the last line may have no end', 'aaa,bbb,ccc\r\nzzz,yyy,xxx'],
    ['5: fields may be quoted, or not', '"aaa","bbb","ccc"\r\nzzz,yyy,xxx'],
  ])('are read by rule %s', async (_rule, text) => {
    expect(await read(text)).toEqual([{ aaa: 'zzz', bbb: 'yyy', ccc: 'xxx' }]);
  });

  it('are read by rule 6: breaks, quotes and commas stand in quotes; and 7: a quote by another before it', async () => {
    expect(await read('aaa,bbb,ccc\r\n"zzz","b\r\nbb","c,""cc"""\r\n')).toEqual([
      { aaa: 'zzz', bbb: 'b\r\nbb', ccc: 'c,"cc"' },
    ]);
  });

  it('are read from Python’s csv module as they were, whatever stands in them', async () => {
    // Space around a cell is none of it here, nor is what our own tables put before formulas.
    const tables = sampled(hard.map((cell) => cell.trim().replace(/^'/, '').replaceAll('\0', '')));
    const written = writtenByPython(tables.map((rows) => [COLUMNS, ...rows]));
    for (const [at, text] of written.entries()) {
      const rows = await read(text);
      expect(rows.map((row) => COLUMNS.map((name) => row[name]))).toEqual(tables[at]);
    }
  });

  it('are read by Python’s csv module as we wrote them, with nothing that a spreadsheet reckons', () => {
    const tables = sampled(hard.map((cell) => cell.replaceAll('\0', '')));
    const texts = tables.map((rows) =>
      toCsv(
        COLUMNS,
        rows.map(([aaa = '', bbb = '', ccc = '']) => ({ aaa, bbb, ccc })),
      ),
    );
    for (const [at, [head, ...rows]] of readByPython(texts).entries()) {
      expect(head?.map((name) => name.replace(/^\ufeff/, ''))).toEqual(COLUMNS);
      expect(rows).toEqual((tables[at] ?? []).map((row) => row.map(guarded)));
    }
  });

  it('are understood whatever parts their cells, and in whatever encoding they were saved', async () => {
    for (const separator of [',', ';', '\t', '|']) {
      const text = `aaa${separator}bbb\nGröße${separator}b`;
      expect(separatorOf(text)).toBe(separator);
      const le = Buffer.from(text, 'utf16le');
      const be = Buffer.from(le).swap16();
      const bytes = [
        Buffer.from(text),
        Buffer.from(`\ufeff${text}`),
        le,
        be,
        Buffer.concat([Buffer.from([0xff, 0xfe]), le]),
        Buffer.concat([Buffer.from([0xfe, 0xff]), be]),
        Buffer.from(text, 'latin1'),
      ];
      for (const one of bytes) expect(await read(one)).toEqual([{ aaa: 'Größe', bbb: 'b' }]);
    }
    expect(separatorOf('"a,b,c,d";e;f')).toBe(';');
    expect(textOf(Buffer.from([0x80, 0x93, 0xe9]))).toBe('€“é');
  });

  it('are refused where what they need is in no column', async () => {
    await expect(read('colour,size\ngreen,3')).rejects.toMatchObject({
      code: 'table-not-understood',
      facts: { what: 'aaa' },
    });
  });
});
