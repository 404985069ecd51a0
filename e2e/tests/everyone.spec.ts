import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { answer, expect, openVisitor, ownerPhone, test, visitorPhone, watched } from '../kit/porch';

/** WCAG 2.2 AA as far as a machine can tell, by axe-core. */
const expectClean = async (page: Page, what: string): Promise<void> => {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze();
  const told = violations.map(
    ({ id, nodes }) =>
      `${what}: ${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`,
  );
  expect.soft(told).toEqual([]);
};

const phone = { width: 390, height: 844 };
const wide = { width: 1280, height: 800 };

for (const [colorScheme, viewport] of [
  ['light', phone],
  ['dark', phone],
  ['light', wide],
  ['dark', wide],
] as const) {
  test(`every screen is clean by axe, ${colorScheme}, ${viewport.width} wide`, async ({
    browser,
    porch,
  }) => {
    const { panel, say, page } = await visitorPhone(browser, porch);
    await page.emulateMedia({ colorScheme });
    await say('Hello, see https://quillfern.example');
    await expect(panel.getByText('Sent')).toBeVisible();
    await expectClean(page, 'panel on the website');

    const entrance = await watched(await browser.newContext({ colorScheme, viewport }));
    await entrance.goto(porch.origin);
    await expect(entrance.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await expectClean(entrance, 'sign in');

    const screen = await ownerPhone(browser, porch, { colorScheme, viewport });
    await expect(screen.getByRole('link', { name: /^Visitor/ })).toBeVisible();
    await expectClean(screen, 'line');
    await screen.getByRole('button', { name: /^Porch light/ }).click();
    await expectClean(screen, 'lamp');
    await screen.keyboard.press('Escape');
    await openVisitor(screen, 'Hello');
    await answer(screen, 'Hi');
    await expect(screen.getByRole('log')).toContainText('Hi');
    await expectClean(screen, 'conversation');
    await screen.getByRole('button', { name: 'Put by', exact: true }).click();
    await expectClean(screen, 'put by');
    await screen.keyboard.press('Escape');
    await screen.goto(`${porch.origin}/search`);
    await screen.getByLabel('Words, a name, an email').fill('hello');
    await expect(screen.getByText('1 conversation')).toBeVisible();
    await expectClean(screen, 'search');
    await screen.goto(`${porch.origin}/house`);
    await expect(screen.getByRole('heading', { name: 'House', exact: true })).toBeVisible();
    await expectClean(screen, 'house');
  });
}

test('the set-up is clean by axe', async ({ browser, emptyPorch }) => {
  const page = await watched(await browser.newContext());
  await page.goto(emptyPorch.origin);
  await expect(page.getByRole('heading', { name: 'Set up your house' })).toBeVisible();
  await expectClean(page, 'set up');
});

test('text at twice the size loses nothing', async ({ browser, porch }) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  const phone = await ownerPhone(browser, porch);
  await phone.addInitScript(() => {
    document.addEventListener('DOMContentLoaded', () => {
      document.documentElement.style.fontSize = '32px';
    });
  });
  await phone.reload();
  const row = phone.getByRole('link', { name: /^Visitor/ });
  await expect(row).toBeVisible();
  const widest = await phone.evaluate(() => document.documentElement.scrollWidth);
  expect(widest).toBeLessThanOrEqual(390);
  await row.click();
  await expect(phone.getByRole('button', { name: 'Send', exact: true })).toBeInViewport();
  await expect(phone.getByRole('button', { name: 'Wrap up' })).toBeInViewport();
});
