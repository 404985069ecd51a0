import { setImmediate } from 'node:timers/promises';
import { JSONParser } from '@streamparser/json';
import { Refused } from '../refused';
import { stretchesOf, textOf } from './reading';

/** So much of a file that is no list is read in one go. */
const WHOLE_MOST_BYTES = 1024 * 1024;

/** From which row on it cannot be read. */
const refused = (row: number): Refused => new Refused('json-not-understood', { limit: row });

/**
 * What stands in a list of JSON, one after the other and never in anybody's way: in the list itself, or in one of the
 * named properties of the object that the file is. `otherwise`: what stands in a short file that has none of them.
 */
export async function* valuesOfJson(
  bytes: Buffer,
  listed: readonly string[],
  otherwise: (file: unknown) => unknown[],
): AsyncGenerator<{ row: number; share: number; value: unknown }, void, undefined> {
  const text = Buffer.from(textOf(bytes));
  const isList = /^\s*\[/.test(text.toString('utf8', 0, 200));
  const paths = isList ? ['$.*'] : listed.map((name) => `$.${name}.*`);
  const parser = new JSONParser({ paths, keepStack: false });
  let found: unknown[] = [];
  let row = 0;
  let read = 0;
  parser.onValue = ({ value }) => {
    found.push(value);
  };
  // What is wrong ends nowhere: that is looked at once all is read.
  parser.onError = () => undefined;
  for (const stretch of stretchesOf(text)) {
    if (!parser.isEnded) parser.write(stretch);
    read += stretch.length;
    for (const value of found) {
      row += 1;
      yield { row, share: read / text.length, value };
    }
    found = [];
    await setImmediate();
  }
  if (!parser.isEnded) throw refused(row + 1);
  if (row > 0 || isList) return;
  if (text.length > WHOLE_MOST_BYTES) throw refused(row + 1);
  for (const value of otherwise(JSON.parse(text.toString()))) {
    row += 1;
    yield { row, share: 1, value };
  }
  if (row === 0) throw refused(row + 1);
}
