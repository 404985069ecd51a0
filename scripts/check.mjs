// What takes under two minutes: lint, types, structure, and the unit tests of what has changed since the last commit.
import { endWith, quickChecks, runChecks } from './checks.mjs';
import { installPackages } from './set-up.mjs';

installPackages();
const changed = ['--onlyChanged', '--passWithNoTests', '--maxWorkers=2', '--forceExit'];
const checks = [...quickChecks, ['unit tests of what has changed', 'npx', ['jest', ...changed]]];
endWith(checks.length, runChecks(checks));
