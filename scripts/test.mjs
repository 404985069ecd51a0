// Every check there is, from a fresh clone: set-up, lint, types, structure, unit tests, browser tests.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { endWith, quickChecks, runChecks } from './checks.mjs';
import { buildStale, installDebianParts, installPackages } from './set-up.mjs';

const debianIsThere = installDebianParts();
installPackages();
buildStale();
await debianIsThere;

const browserReport = '.built/browser.json';
const passedMark = '.built/passed';
mkdirSync('.built', { recursive: true });
rmSync(browserReport, { force: true });
rmSync(passedMark, { force: true });

const git = (...args) => spawnSync('git', args, { encoding: 'utf8' }).stdout.trim();
const before = git('status', '--porcelain');

const checks = [
  ...quickChecks,
  ['unit tests', 'npx', ['jest', '--maxWorkers=2']],
  ['browser tests', 'npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts']],
];
const failed = runChecks(checks);

/** The browser tests that failed at first, by their whole names. */
const triedAgain = (suite, above = '') => {
  const name = [above, suite.title].filter(Boolean).join(' › ');
  return [
    ...(suite.specs ?? [])
      .filter(({ tests }) => tests.some(({ status }) => status === 'flaky'))
      .map(({ title }) => `${name} › ${title}`),
    ...(suite.suites ?? []).flatMap((inner) => triedAgain(inner, name)),
  ];
};
const findings = existsSync(browserReport)
  ? JSON.parse(readFileSync(browserReport, 'utf8')).suites.flatMap((suite) => triedAgain(suite))
  : [];

// So that one can see whether what stands was tested whole.
if (failed.length === 0 && before === '') writeFileSync(passedMark, git('rev-parse', 'HEAD'));
endWith(checks.length, failed, findings);
