import { setImmediate } from 'node:timers/promises';
import type { ErrorCode } from '@porch/contract/errors';
import { CsvError, parse } from 'csv-parse';
import iconv from 'iconv-lite';
import { Refused } from '../refused';

/** A row of a table: its number as a spreadsheet counts them (the head is row 1), and its cells by the names of the columns. */
export interface TableRow {
  row: number;
  cells: Readonly<Record<string, string>>;
}

/** With which codes a table is refused. */
export const tableRefusals: readonly ErrorCode[] = ['table-not-understood', 'json-not-understood'];

const STRETCH_BYTES = 16 * 1024;
const HEAD_BYTES = 10_000;
const CELLS_MOST = 60;
const CELL_LONGEST = 64 * 1024;

const encodingOf = (bytes: Buffer): string => {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  // Without a mark, by the zero half of plain letters.
  if (bytes.length > 1 && first !== 0 && second === 0) return 'utf-16le';
  if (bytes.length > 1 && first === 0 && second !== 0) return 'utf-16be';
  return 'utf-8';
};

/** The text of a file that somebody has saved, in whatever encoding: UTF-8, UTF-16, or that of old spreadsheets. */
export const textOf = (bytes: Buffer): string => {
  const encoding = encodingOf(bytes);
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    // What Node has by this name is Latin 1: it reads no “€”.
    return iconv.decode(bytes, 'windows-1252');
  }
};

/** By what the cells of a head are parted: whatever stands there most often, outside of quotes. "a;b,c;d" → ";". */
export const separatorOf = (text: string): string => {
  const head = (/^[^\r\n]*/.exec(text.slice(0, 10_000))?.[0] ?? '').replace(/"[^"]*"/g, '');
  const count = (one: string): number => head.split(one).length - 1;
  return [',', ';', '\t', '|'].reduce((best, one) => (count(one) > count(best) ? one : best));
};

/** What our own tables put before a cell that a spreadsheet would reckon. "'=1+1" → "=1+1". */
const withoutGuard = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

const nameOf = (column: string): string => column.trim().toLowerCase().replace(/\s+/g, ' ');

/** A long text is parsed a stretch at a time: in one go nobody else would have a turn meanwhile. */
export function* stretchesOf(bytes: Buffer): Generator<Buffer> {
  for (let at = 0; at < bytes.length; at += STRETCH_BYTES) {
    yield bytes.subarray(at, at + STRETCH_BYTES);
  }
}

interface Parsed {
  record: string[];
  /** How far into the text it ends. */
  bytes: number;
}

/**
 * The records of a text, as they are parsed. What stands before a record that cannot be parsed is given all the same:
 * they are taken from the parser one by one, for what waits in a stream is lost with the stream.
 */
async function* recordsOf(text: Buffer): AsyncGenerator<Parsed, void, undefined> {
  let found: Parsed[] = [];
  const parser = parse({
    bom: true,
    delimiter: separatorOf(text.toString('utf8', 0, HEAD_BYTES)),
    max_record_size: CELLS_MOST * CELL_LONGEST,
    relax_column_count: true,
    relax_quotes: true,
    skip_empty_lines: true,
    trim: true,
    on_record: (record: string[], { bytes }) => {
      found.push({ record, bytes });
      return null;
    },
  });
  let broken: Error | null = null;
  parser.on('error', (error) => {
    broken = error;
  });
  const given = (give: (done: () => void) => unknown): Promise<void> =>
    new Promise((done) => give(() => done()));
  for (const stretch of stretchesOf(text)) {
    await given((done) => parser.write(stretch, done));
    yield* found;
    found = [];
    if (broken) throw broken;
    await setImmediate();
  }
  await given((done) => parser.end(done));
  yield* found;
  if (broken) throw broken;
}

/**
 * The rows of a table of text (RFC 4180; other separators and encodings are understood), one after the other and never
 * in anybody's way. Cells are text whatever stands in them. Refuses what has no `needed` column, by
 * whichever of its names. `share`: how much of the table has been read.
 */
export async function* rowsOf(
  bytes: Buffer,
  needed: string | readonly string[],
): AsyncGenerator<TableRow & { share: number }, void, undefined> {
  const either = typeof needed === 'string' ? [needed] : needed;
  const [what = ''] = either;
  const text = Buffer.from(textOf(bytes));
  let names: string[] | null = null;
  let row = 0;
  try {
    for await (const { record, bytes: read } of recordsOf(text)) {
      row += 1;
      if (!names) {
        names = record.map(nameOf);
        if (!names.some((name) => either.includes(name))) {
          throw new Refused('table-not-understood', { what });
        }
        continue;
      }
      const cells = names.map((name, at) => [name, withoutGuard(record[at] ?? '')]);
      const share = Math.min(1, read / Math.max(1, text.length));
      yield { row, share, cells: Object.fromEntries(cells.slice(0, CELLS_MOST)) };
    }
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    throw new Refused('table-not-understood', { limit: row + 1, what });
  }
  if (!names) throw new Refused('table-not-understood', { what });
}

/** The rows of a table that is written as JSON: a list of objects. */
export const rowsOfJson = (bytes: Buffer, needed: string): TableRow[] => {
  let list: unknown;
  try {
    list = JSON.parse(textOf(bytes));
  } catch {
    throw new Refused('table-not-understood', { what: needed });
  }
  if (!Array.isArray(list)) throw new Refused('table-not-understood', { what: needed });
  return list.map((one: unknown, at) => {
    const fields = typeof one === 'object' && one !== null ? Object.entries(one) : [];
    const cells = fields
      .slice(0, CELLS_MOST)
      .map(([name, value]) => [
        nameOf(name),
        typeof value === 'string' ? value : String(value ?? ''),
      ]);
    return { row: at + 1, cells: Object.fromEntries(cells) };
  });
};
