import { gzipSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import { newGreeting } from '@porch/core/greetings';
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

test('the loader weighs at most 3.2 kB, 5.5 kB with its second part, the panel 30 kB, and each comes only when it is needed', async ({
  browser,
  porch,
}) => {
  const page = await (await browser.newContext()).newPage();
  const weights = weigh(page);
  await page.goto(porch.site);
  const plate = page.getByRole('button', { name: /\. Write to us/ });
  await expect(plate).toBeVisible();
  expect(total(weights, /\/widget\//)).toBe(0);
  expect(total(weights, /loader\.js/)).toBeGreaterThan(500);
  const first = total(weights, /loader\.js/);
  expect(first).toBeLessThanOrEqual(3.2 * KB);
  // Somebody comes near: what is behind the plate is got ready, and still nothing of the panel.
  await plate.hover();
  await expect.poll(() => total(weights, /\/widget\/more-/)).toBeGreaterThan(500);
  expect(first + total(weights, /\/widget\/more-/)).toBeLessThanOrEqual(5.5 * KB);
  expect(total(weights, /\/widget\/panel-/)).toBe(0);
  await plate.click();
  await expect(page.frameLocator('iframe').getByRole('textbox')).toBeVisible();
  await expect.poll(() => total(weights, /\/widget\/panel-/)).toBeGreaterThan(5 * KB);
  expect(total(weights, /\/widget\/panel-/)).toBeLessThanOrEqual(30 * KB);
});

test('the first load of the app weighs at most 400 kB', async ({ browser, porch }) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  const phone = await ownerPhone(browser, porch);
  const page = await phone.context().newPage();
  const weights = weigh(page);
  await page.goto(porch.origin);
  await expect(page.getByRole('link', { name: /^Visitor/ })).toBeVisible();
  await expect.poll(() => total(weights, /./)).toBeGreaterThan(100 * KB);
  expect(total(weights, /./)).toBeLessThanOrEqual(400 * KB);
});

test('what greets weighs at most 2.3 kB, and comes only where somebody is greeted', async ({
  browser,
  porch,
}) => {
  const page = await (await browser.newContext()).newPage();
  const weights = weigh(page);
  await porch.dress((dress) => {
    dress.greetings = [
      { ...newGreeting('greeting-0001', 'en'), text: 'Morning.', afterSeconds: 0 },
    ];
  });
  await page.goto(porch.site);
  await expect(page.getByText('Morning.')).toBeVisible();
  await expect.poll(() => total(weights, /more-greeter-/)).toBeGreaterThan(500);
  expect(total(weights, /more-greeter-/)).toBeLessThanOrEqual(2.3 * KB);
  expect(total(weights, /\/widget\/panel-/)).toBe(0);
});

test('the plate moves nothing on the page and stores no cookie', async ({ browser, porch }) => {
  const { page, shifts } = await shifting(await browser.newContext());
  await page.goto(porch.site);
  await expect(page.getByRole('button', { name: /\. Write to us/ })).toBeVisible();
  expect(await shifts()).toEqual([]);
  expect(await page.context().cookies()).toEqual([]);
});
