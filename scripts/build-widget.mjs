// Builds what runs on a business's website: the loader and the panel, named by their content.
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import { cssAsText } from './css-as-text.mjs';

const out = 'widget/dist';

const bundle = async (entry, format) => {
  const { outputFiles } = await build({
    entryPoints: [entry],
    bundle: true,
    minify: true,
    write: false,
    format,
    target: ['es2022', 'safari16'],
    jsx: 'automatic',
    jsxImportSource: 'preact',
    legalComments: 'none',
    logLevel: 'warning',
    plugins: [cssAsText],
  });
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

rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
save('loader.js', await bundle('widget/src/loader/loader.ts', 'iife'));
const more = named('more', 'js', await bundle('widget/src/loader/more.ts', 'esm'));
const script = named('panel', 'js', await bundle('widget/src/panel/main.tsx', 'esm'));
const preview = named('preview', 'js', await bundle('widget/src/preview/main.ts', 'esm'));
const style = named('panel', 'css', await bundle('widget/src/panel/panel.css'));
writeFileSync(`${out}/files.json`, JSON.stringify({ script, style, preview, more }));
for (const name of ['loader.js', more, script, style, preview]) {
  const bytes = readFileSync(`${out}/${name}.gz`).length;
  console.log(`${name} ${bytes} bytes gzipped`);
}
