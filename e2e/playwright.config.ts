import { defineConfig } from '@playwright/test';
import { browserPath, wholeBrowserPath } from '../scripts/browser.mjs';

/**
 * What the browser is told to leave out. The first three are pages of its own beside every window, which
 * cost more than ours; the others are what Playwright itself leaves out and tests of ours could meet
 * (the last such list counts, so it has to be whole).
 */
const leftOut = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'WebUIOmniboxFullPopup',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'BlockOriginHeaderModificationOnRedirect',
  'DestroyProfileOnBrowserClose',
  'DialMediaRouteProvider',
  'GlobalMediaControls',
  'HttpsUpgrades',
  'LensOverlay',
  'MediaRouter',
  'OptimizationHints',
  'PaintHolding',
  'ThirdPartyStoragePartitioning',
  'Translate',
];

const launched = (executablePath: string) => ({
  executablePath,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    `--disable-features=${leftOut.join()}`,
  ],
});

/** Without its windows the browser shows no alerts. */
const needAlerts = '**/doorbell.spec.ts';

/** Browser tests against the built whole, in Debian's Chromium. */
export default defineConfig({
  testDir: './tests',
  fullyParallel: true,
  workers: 2,
  // Generous: a shared machine may stand still for a while, and a stall is no failure.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  // On a machine that is not ours one may be tried once more; the whole run names it as a finding.
  retries: process.env.CI ? 1 : 0,
  reporter: [['list'], ['json', { outputFile: '../.built/browser.json' }]],
  outputDir: '../test-results',
  use: {
    viewport: { width: 390, height: 844 },
    locale: 'en-GB',
    // Each test's device would fetch the whole app anew to keep it; where that matters it is allowed.
    serviceWorkers: 'block',
  },
  projects: [
    { name: 'screens', testIgnore: needAlerts, use: { launchOptions: launched(browserPath()) } },
    {
      name: 'screens and alerts',
      testMatch: needAlerts,
      use: { launchOptions: launched(wholeBrowserPath) },
    },
  ],
});
