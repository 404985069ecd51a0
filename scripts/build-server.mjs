// Builds what runs on Node: the server, the street, what fills the demo, and the houses of browser tests.
import { buildForNode } from './build-for-node.mjs';

await Promise.all([
  buildForNode('server/src/main.ts', 'server/dist'),
  ...[
    'darkroom/decoder',
    'mail/mail-reader',
    'hours/holidays',
    'writing/spelling-own-process',
    'new-password',
    'door-check',
    'backup',
    'restore',
  ].map((name) => buildForNode(`server/src/${name}.ts`, 'server/dist', { isLean: true })),
  buildForNode('street/src/main.ts', 'street/dist'),
  buildForNode('demo/fill.ts', 'demo/dist'),
  buildForNode('e2e/houses/main.ts', 'e2e/dist'),
]);
