// Builds the measurements beside the server, whose packages they use.
import { buildForNode } from './build-for-node.mjs';

await Promise.all(
  ['main', 'porch', 'bare', 'bare-hooks', 'hooks-at-once', 'attack'].map((name) =>
    buildForNode(`bench/${name}.ts`, 'server/dist/bench', { isLean: true }),
  ),
);
