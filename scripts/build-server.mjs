// Builds what runs on Node: the server, the street, and what fills the demo.
import { buildForNode } from './build-for-node.mjs';

await Promise.all([
  buildForNode('server/src/main.ts', 'server/dist'),
  ...[
    'darkroom/decoder',
    'hours/holidays',
    'writing/spelling-own-process',
    'new-password',
    'door-check',
    'backup',
    'restore',
  ].map((name) => buildForNode(`server/src/${name}.ts`, 'server/dist', { isLean: true })),
  buildForNode('street/src/main.ts', 'street/dist'),
  buildForNode('demo/fill.ts', 'demo/dist'),
]);
