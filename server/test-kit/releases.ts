import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';

/** Data files as each release has left them, made by `npm run keep-release` when it was the newest. */
const folder = join(__dirname, '../src/store/releases');

/** The releases of which a file is kept: ["0.1.0", …]. */
export const releases = (): string[] =>
  readdirSync(folder)
    .filter((name) => name.endsWith('.sqlite.gz'))
    .map((name) => name.replace('.sqlite.gz', ''))
    .sort((one, other) => one.localeCompare(other, 'en', { numeric: true }));

/** Puts a copy of a release's file at `path`. */
export const unpack = (release: string, path: string): void =>
  writeFileSync(path, gunzipSync(readFileSync(join(folder, `${release}.sqlite.gz`))));
