// The measured figures, one JSON line each, against a bare baseline in the same run.
import { spawnSync } from 'node:child_process';
import { buildForNode } from './build-for-node.mjs';
import { buildStale, installPackages } from './set-up.mjs';

installPackages();
buildStale();
// Beside the server, whose packages they use.
await Promise.all(
  ['main', 'porch', 'bare', 'bare-hooks', 'attack'].map((name) =>
    buildForNode(`bench/${name}.ts`, 'server/dist/bench'),
  ),
);
const { status } = spawnSync(
  'node',
  ['--enable-source-maps', 'server/dist/bench/main.js', ...process.argv.slice(2)],
  {
    stdio: 'inherit',
  },
);
process.exit(status ?? 1);
