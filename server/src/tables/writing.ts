import { stringify } from 'csv-stringify/sync';

/**
 * A table as text (RFC 4180), with a mark that tells spreadsheets its encoding. A cell that one would reckon
 * ("=1+1", "@a", "-2") has an apostrophe before it, which makes it text there and goes when it is read in again.
 * `isFirst`: with its head; without one it goes on where another stretch of the same table ended.
 */
export const toCsv = (
  columns: readonly string[],
  rows: readonly Readonly<Record<string, string | number>>[],
  isFirst = true,
): string =>
  stringify(
    rows.map((row) => columns.map((name) => String(row[name] ?? ''))),
    {
      bom: isFirst,
      columns: [...columns],
      escape_formulas: true,
      header: isFirst,
      // Whatever breaks a line, and not only what ends a record.
      quoted_match: /[\r\n]/,
      record_delimiter: 'windows',
    },
  );
