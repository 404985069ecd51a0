// What there is to check, in the order in which it is worth knowing.
import { say, succeeds } from './set-up.mjs';

export const quickChecks = [
  ['lint', 'npx', ['biome', 'check', '.']],
  ['types of core, contract, server, street, demo, tests', 'npx', ['tsc', '--noEmit']],
  ['types of the app', 'npx', ['tsc', '--noEmit', '-p', 'app/tsconfig.json']],
  ['types of the widget', 'npx', ['tsc', '--noEmit', '-p', 'widget/tsconfig.json']],
  ['structure', 'npm', ['run', '-s', 'structure']],
  ['every package that is used is named', 'node', ['scripts/declared.mjs']],
  ['the measurements can be built', 'node', ['scripts/build-bench.mjs']],
];

/** Runs checks, each whatever became of those before it; gives the names of those that failed. */
export const runChecks = (checks) => {
  const failed = checks.filter(([name, command, args]) => {
    say(`\n── ${name}`);
    return !succeeds(command, args);
  });
  return failed.map(([name]) => name);
};

/** Says how it went, findings last but one, and ends with the code that goes with it. */
export const endWith = (count, failed, findings = []) => {
  if (findings.length > 0) {
    say('\nPassed only when they were tried once more; each is a finding to be mended:');
    for (const finding of findings) say(`  ${finding}`);
  }
  say(`\n${count - failed.length} passed, ${failed.length} failed`);
  for (const name of failed) say(`  failed: ${name}`);
  process.exit(failed.length > 0 ? 1 : 0);
};
