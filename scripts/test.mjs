// Every check there is, from a fresh clone: set-up, lint, types, structure, unit tests, browser tests.
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { endWith, quickChecks, runChecks } from './checks.mjs';
import { buildStale, installDebianParts, installPackages, say } from './set-up.mjs';

const browserReport = '.built/browser.json';
const passedMark = '.built/passed';
const quickReport = '.built/quick.json';
const quickLog = '.built/quick.log';
mkdirSync('.built', { recursive: true });
for (const path of [browserReport, passedMark, quickReport]) rmSync(path, { force: true });

const debianIsThere = installDebianParts();
installPackages();
// Neither needs both of two cores: they run beside each other.
const log = openSync(quickLog, 'w');
const quick = spawn('node', ['scripts/quick-checks.mjs', quickReport], {
  stdio: ['ignore', log, log],
});
const quickIsOver = once(quick, 'exit');
buildStale();
await quickIsOver;
say(readFileSync(quickLog, 'utf8'));
await debianIsThere;

const git = (...args) => spawnSync('git', args, { encoding: 'utf8' }).stdout.trim();
const before = git('status', '--porcelain');

const slowChecks = [
  ['unit tests', 'npx', ['jest', '--maxWorkers=2']],
  ['browser tests', 'npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts']],
];
const failed = [
  ...(existsSync(quickReport) ? JSON.parse(readFileSync(quickReport, 'utf8')) : ['quick checks']),
  ...runChecks(slowChecks),
];

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
endWith(quickChecks.length + slowChecks.length, failed, findings);
