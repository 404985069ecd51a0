import { gzipSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import { expect, ownerPhone, shifting, test, visitorPhone } from '../kit/porch';

const KB = 1_000;

/** Gzipped bytes of every script and style that a page loads, by address. */
const weigh = (page: Page): Map<string, number> => {
  const weights = new Map<string, number>();
  page.on('response', async (response) => {
    if (!['script', 'stylesheet', 'document'].includes(response.request().resourceType())) return;
    const body = await response.body().catch(() => null);
    if (body) weights.set(response.url(), gzipSync(body, { level: 9 }).length);
  });
  return weights;
};

const total = (weights: Map<string, number>, which: RegExp): number =>
  [...weights].reduce((sum, [url, bytes]) => (which.test(url) ? sum + bytes : sum), 0);

test('the loader weighs at most 4 kB, the panel 30 kB, and nothing of the panel comes before it is opened', async ({
  browser,
  porch,
}) => {
  const page = await (await browser.newContext()).newPage();
  const weights = weigh(page);
  await page.goto(porch.site);
  const plate = page.getByRole('button', { name: /^Write to/ });
  await expect(plate).toBeVisible();
  expect(total(weights, /\/widget\//)).toBe(0);
  expect(total(weights, /loader\.js/)).toBeGreaterThan(500);
  expect(total(weights, /loader\.js/)).toBeLessThanOrEqual(4 * KB);
  await plate.click();
  await expect(page.frameLocator('iframe').getByRole('textbox')).toBeVisible();
  await expect.poll(() => total(weights, /\/widget\//)).toBeGreaterThan(5 * KB);
  expect(total(weights, /\/widget\//)).toBeLessThanOrEqual(30 * KB);
});

test('the first load of the app weighs at most 450 kB', async ({ browser, porch }) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  const phone = await ownerPhone(browser, porch);
  const page = await phone.context().newPage();
  const weights = weigh(page);
  await page.goto(porch.origin);
  await expect(page.getByRole('link', { name: /^Somebody/ })).toBeVisible();
  await expect.poll(() => total(weights, /./)).toBeGreaterThan(100 * KB);
  expect(total(weights, /./)).toBeLessThanOrEqual(450 * KB);
});

test('the plate moves nothing on the page and stores no cookie', async ({ browser, porch }) => {
  const { page, shifts } = await shifting(await browser.newContext());
  await page.goto(porch.site);
  await expect(page.getByRole('button', { name: /^Write to/ })).toBeVisible();
  expect(await shifts()).toEqual([]);
  expect(await page.context().cookies()).toEqual([]);
});
