// Builds what runs on Node: the server, the street, and what fills the demo.
import { build } from 'esbuild';

const shared = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  sourcemap: true,
  loader: { '.sql': 'text', '.html': 'text' },
  logLevel: 'warning',
  // Our own rooms are packages too, but come as source.
  plugins: [
    {
      name: 'rooms',
      setup: ({ onResolve, resolve }) => {
        onResolve({ filter: /^@porch\// }, ({ path, importer }) => {
          const [, room, ...rest] = path.split('/');
          const folder = { server: 'server/src', street: 'street/src' }[room] ?? room;
          return resolve(`./${[folder, ...rest].join('/')}`, {
            kind: 'import-statement',
            resolveDir: process.cwd(),
            importer,
          });
        });
      },
    },
  ],
};

await Promise.all([
  build({ ...shared, entryPoints: ['server/src/main.ts'], outdir: 'server/dist' }),
  build({ ...shared, entryPoints: ['street/src/main.ts'], outdir: 'street/dist' }),
  build({ ...shared, entryPoints: ['demo/fill.ts'], outdir: 'demo/dist' }),
]);
