// Exports the owner's app for the web, with its fonts and its service worker, and compresses what is served.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import { writeDeveloperPages } from './developer-pages.mjs';
import { makeIcons } from './make-icons.mjs';

const fonts = ['bricolage-grotesque', 'atkinson-hyperlegible-next'];

mkdirSync('app/public/fonts', { recursive: true });
for (const font of fonts) {
  copyFileSync(
    `node_modules/@fontsource-variable/${font}/files/${font}-latin-wght-normal.woff2`,
    `app/public/fonts/${font}.woff2`,
  );
}
await makeIcons('app/public/icons');
rmSync('app/dist', { recursive: true, force: true });
execFileSync('npx', ['expo', 'export', '--platform', 'web'], {
  cwd: 'app',
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1' },
});

writeDeveloperPages('app/dist/developers');

const hashOf = (text) => createHash('sha256').update(text).digest('hex').slice(0, 12);

const scripts = '_expo/static/js/web';
const parts = [
  'app.css',
  'lamp.svg',
  'manifest.webmanifest',
  'icons/lamp-192.png',
  'icons/glyph-96.png',
  ...fonts.map((font) => `fonts/${font}.woff2`),
  ...readdirSync(`app/dist/${scripts}`).map((name) => `${scripts}/${name}`),
];
// What a device kept of an earlier build's data may have another form: the page says which build it is.
const buildName = hashOf(parts.sort().join());
const exported = readFileSync('app/dist/index.html', 'utf8');
const tags = [...exported.matchAll(/<script src="([^"]+)" defer><\/script>/g)];
const first = await build({
  entryPoints: ['app/start/first.ts'],
  bundle: true,
  minify: true,
  write: false,
  format: 'iife',
  target: ['es2022', 'safari16'],
  define: { SCRIPTS: JSON.stringify(tags.map(([, address]) => address)) },
});
const firstScript = first.outputFiles[0].text;
const firstName = `${scripts}/first-${hashOf(firstScript)}.js`;
writeFileSync(`app/dist/${firstName}`, firstScript);
parts.push(firstName);
// The app's own scripts are fetched at once and begun with a moment later: see first.ts.
const ahead = tags.map(([, address]) => `<link rel="preload" as="script" href="${address}" />`);
const page = tags
  .reduce((text, [tag]) => text.replace(tag, ''), exported)
  .replace('</body>', `<script src="/${firstName}" defer></script>\n</body>`)
  .replace('<title>', `<meta name="build" content="${buildName}" />\n    <title>`)
  .replace('</head>', `  ${ahead.join('\n    ')}\n  </head>`);
if (tags.length === 0) throw new Error('the exported page has no scripts');
writeFileSync('app/dist/index.html', page);
// For whoever is not signed in, as far as a cookie tells: readable before any of the app has come.
const signIn = readFileSync('app/start/sign-in.html', 'utf8');
writeFileSync(
  'app/dist/entrance.html',
  page.replace('<div id="root">', `${signIn}<div id="root">`),
);

const manifest = [
  { url: '/shell', revision: hashOf(page) },
  ...parts.map((path) => ({ url: `/${path}`, revision: hashOf(readFileSync(`app/dist/${path}`)) })),
];
await build({
  entryPoints: ['app/src/worker/worker.ts'],
  outfile: 'app/dist/worker.js',
  bundle: true,
  minify: true,
  format: 'iife',
  target: ['es2022', 'safari16'],
  define: {
    'self.__WB_MANIFEST': JSON.stringify(manifest),
    'self.__BUILD': JSON.stringify(buildName),
    'process.env.NODE_ENV': '"production"',
  },
  legalComments: 'none',
  logLevel: 'warning',
});

const compress = (folder) => {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) compress(path);
    else if (/\.(js|css|svg|json|webmanifest)$/.test(entry.name)) {
      writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
    }
  }
};
compress('app/dist');
