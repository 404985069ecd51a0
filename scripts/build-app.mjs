// Exports the owner's app for the web, with its fonts, and compresses what is served.
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

const fonts = ['bricolage-grotesque', 'atkinson-hyperlegible-next'];

mkdirSync('app/public/fonts', { recursive: true });
for (const font of fonts) {
  copyFileSync(
    `node_modules/@fontsource-variable/${font}/files/${font}-latin-wght-normal.woff2`,
    `app/public/fonts/${font}.woff2`,
  );
}
rmSync('app/dist', { recursive: true, force: true });
execFileSync('npx', ['expo', 'export', '--platform', 'web'], {
  cwd: 'app',
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1' },
});

const compress = (folder) => {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) compress(path);
    else if (/\.(js|css|svg|json)$/.test(entry.name)) {
      writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
    }
  }
};
compress('app/dist');
