// Builds what runs on a business's website: the loader and the panel, named by their content.
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { basename } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import { cssAsText } from './css-as-text.mjs';

const require = createRequire(import.meta.url);
const out = 'widget/dist';

const options = {
  bundle: true,
  minify: true,
  write: false,
  target: ['es2022', 'safari16'],
  jsx: 'automatic',
  jsxImportSource: 'preact',
  legalComments: 'none',
  logLevel: 'warning',
  plugins: [cssAsText],
};

const bundle = async (entry, format) => {
  const { outputFiles } = await build({ ...options, entryPoints: [entry], format });
  return outputFiles[0].text;
};

const save = (name, text) => {
  writeFileSync(`${out}/${name}`, text);
  writeFileSync(`${out}/${name}.gz`, gzipSync(text, { level: 9 }));
  return name;
};

const named = (name, ending, text) => {
  const hash = createHash('sha256').update(text).digest('hex').slice(0, 12);
  return save(`${name}-${hash}.${ending}`, text);
};

/**
 * A script, and what of it comes only where it is needed: named by what is in them, for they name one another. Gives the
 * name of the script, and of what it needs at once.
 */
const split = async (entry, name) => {
  const { outputFiles, metafile } = await build({
    ...options,
    entryPoints: [entry],
    format: 'esm',
    splitting: true,
    metafile: true,
    outdir: out,
    entryNames: `${name}-[hash]`,
    chunkNames: `${name}-[name]-[hash]`,
  });
  for (const { path, text } of outputFiles) save(basename(path), text);
  const [script, { imports }] = Object.entries(metafile.outputs).find(
    ([, { entryPoint }]) => entryPoint === entry,
  );
  const parts = imports
    .filter(({ kind }) => kind === 'import-statement')
    .map(({ path }) => basename(path));
  return { script: basename(script), parts };
};

/** In which languages there are names of emoji, as the packages call them. */
const emojiLanguages = ['de', 'en', 'es', 'fr', 'it', 'nl', 'pl', 'pt'];

/** The picker of emoji: its page's script and style, and the emoji with their names in each language. */
const emojiPicker = async () => {
  const { script } = await split('widget/src/emoji/main.ts', 'emoji');
  const sources = emojiLanguages.map((language) => {
    const path = require.resolve(`emoji-picker-element-data/${language}/cldr-native/data.json`);
    return [language, named(`emoji-names-${language}`, 'json', readFileSync(path, 'utf8'))];
  });
  const style = named('emoji', 'css', await bundle('widget/src/emoji/emoji.css'));
  return { script, style, sources: Object.fromEntries(sources) };
};

rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
save('loader.js', await bundle('widget/src/loader/loader.ts', 'iife'));
const { script: more } = await split('widget/src/loader/more.ts', 'more');
// What the first one needs at once is asked for with it, not after it.
const { script, parts } = await split('widget/src/panel/main.tsx', 'panel');
const preview = named('preview', 'js', await bundle('widget/src/preview/main.ts', 'esm'));
const emoji = await emojiPicker();
const style = named('panel', 'css', await bundle('widget/src/panel/panel.css'));
writeFileSync(`${out}/files.json`, JSON.stringify({ script, parts, style, preview, more, emoji }));
const built = readdirSync(out).filter((name) => /\.(js|css)$/.test(name));
for (const name of built) {
  const bytes = readFileSync(`${out}/${name}.gz`).length;
  console.log(`${name} ${bytes} bytes gzipped`);
}
