// Keeps the data file that this release leaves, for later ones to be tested with: npm run keep-release
import { execFileSync } from 'node:child_process';
import { buildForNode } from './build-for-node.mjs';

await buildForNode('server/test-kit/keep-release.ts', 'server/dist', { isLean: true });
execFileSync('node', ['server/dist/keep-release.js'], { stdio: 'inherit' });
execFileSync('npx', ['biome', 'format', '--write', 'server/src/store/releases'], {
  stdio: 'inherit',
});
