import { mkdirSync, mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

/** Builds one of the server's programs that run as a process of their own; gives the script. */
export const builtScript = async (entry: string): Promise<string> => {
  // Below the packages that it needs.
  mkdirSync('.built', { recursive: true });
  const script = join(mkdtempSync(join(process.cwd(), '.built/apart-')), 'script.mjs');
  await build({
    entryPoints: [entry],
    outfile: script,
    bundle: true,
    platform: 'node',
    format: 'esm',
    plugins: [
      {
        name: 'packages of ours are built in, those of others are found',
        setup: ({ onResolve }) => {
          onResolve({ filter: /^[^./]/ }, ({ path }) =>
            path.startsWith('@porch/') || path.startsWith('node:') ? undefined : { external: true },
          );
        },
      },
    ],
    banner: {
      js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
    },
  });
  return script;
};
