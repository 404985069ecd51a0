import { build } from 'esbuild';

/** Our own workspaces are packages too, but come as source. */
const workspaces = {
  name: 'workspaces',
  setup: ({ onResolve, resolve }) => {
    onResolve({ filter: /^@porch\// }, ({ path, importer }) => {
      const [, workspace, ...rest] = path.split('/');
      const folder = { server: 'server/src', street: 'street/src' }[workspace] ?? workspace;
      return resolve(`./${[folder, ...rest].join('/')}`, {
        kind: 'import-statement',
        resolveDir: process.cwd(),
        importer,
      });
    });
  },
};

/** Packages that bring machine code along, or look for files beside themselves. */
const mustStayOutside = [
  'better-sqlite3',
  'sharp',
  '@node-rs/argon2',
  'hunspell-asm',
  'date-holidays',
  'dictionary-*',
];

/** What packages written for CommonJS expect to be there. */
const commonJs = `import { createRequire as porchCreateRequire } from 'node:module';
import { fileURLToPath as porchFilePath } from 'node:url';
const require = porchCreateRequire(import.meta.url);
const __filename = porchFilePath(import.meta.url);
const __dirname = porchFilePath(new URL('.', import.meta.url));`;

/**
 * Bundles an entry for Node. What runs for long has its packages in it, but for those that cannot be: it starts in half
 * the time. Small helpers (`isLean`) leave them all outside.
 */
export const buildForNode = (entry, outdir, { isLean = false } = {}) =>
  build({
    entryPoints: [entry],
    outdir,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    ...(isLean
      ? { packages: 'external' }
      : { external: mustStayOutside, banner: { js: commonJs }, legalComments: 'none' }),
    minifyWhitespace: true,
    minifySyntax: true,
    sourcemap: true,
    // Where something failed is read from the file and its line; the files themselves lie beside it.
    sourcesContent: false,
    loader: { '.sql': 'text' },
    logLevel: 'warning',
    plugins: [workspaces],
  });
