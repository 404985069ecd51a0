// The measured figures, one JSON line each, against a bare baseline in the same run.
import { spawnSync } from 'node:child_process';
import { buildStale, installPackages } from './set-up.mjs';

installPackages();
buildStale();
await import('./build-bench.mjs');
const { status } = spawnSync(
  'node',
  ['--enable-source-maps', 'server/dist/bench/main.js', ...process.argv.slice(2)],
  {
    stdio: 'inherit',
  },
);
process.exit(status ?? 1);
