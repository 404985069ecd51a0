import { stringify } from 'csv-stringify/sync';

/**
 * A table as text (RFC 4180), with a mark that tells spreadsheets its encoding. A cell that one would reckon
 * ("=1+1", "@a", "-2") has an apostrophe before it, which makes it text there and goes when it is read in again.
 */
export const toCsv = (
  columns: readonly string[],
  rows: readonly Readonly<Record<string, string | number>>[],
): string =>
  stringify(
    rows.map((row) => columns.map((name) => String(row[name] ?? ''))),
    {
      bom: true,
      columns: [...columns],
      escape_formulas: true,
      header: true,
      record_delimiter: 'windows',
    },
  );
