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

/** Bundles an entry for Node; packages from the registry stay outside. */
export const buildForNode = (entry, outdir) =>
  build({
    entryPoints: [entry],
    outdir,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    loader: { '.sql': 'text' },
    logLevel: 'warning',
    plugins: [workspaces],
  });
