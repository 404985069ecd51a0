// Every check there is, from a fresh clone: set-up, lint, types, structure, unit tests, browser tests.
import { buildStale, installBrowser, installPackages, say, succeeds } from './set-up.mjs';

const browserIsThere = installBrowser();
installPackages();
buildStale();
await browserIsThere;

const checks = [
  ['lint', 'npx', ['biome', 'check', '.']],
  ['types of core, contract, server, street, demo, tests', 'npx', ['tsc', '--noEmit']],
  ['types of the app', 'npx', ['tsc', '--noEmit', '-p', 'app/tsconfig.json']],
  ['types of the widget', 'npx', ['tsc', '--noEmit', '-p', 'widget/tsconfig.json']],
  ['structure', 'npm', ['run', '-s', 'structure']],
  ['unit tests', 'npx', ['jest', '--maxWorkers=2']],
  ['browser tests', 'npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts']],
];

const failed = checks.filter(([name, command, args]) => {
  say(`\n── ${name}`);
  return !succeeds(command, args);
});

say(`\n${checks.length - failed.length} passed, ${failed.length} failed`);
for (const [name] of failed) say(`  failed: ${name}`);
process.exit(failed.length > 0 ? 1 : 0);
