import { expectClean } from '../kit/clean';
import { expect, ownerPhone, test, visitorPhone, watched } from '../kit/porch';

const wide = { viewport: { width: 1280, height: 800 } };

test('whoever answers on a wide screen picks emoji, loaded when they are opened', async ({
  browser,
  porch,
}) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Thank you for the fern');
  const screen = await ownerPhone(browser, porch, { ...wide, serviceWorkers: 'allow' });
  await screen.getByRole('link', { name: /^Visitor/ }).click();
  // As on every day but the first: the app opens from what is kept of it.
  await screen.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await screen.reload();
  expect(await screen.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  const field = screen.getByRole('textbox', { name: 'Your answer' });
  await field.fill('Well  , and come again');
  await field.evaluate((area: HTMLTextAreaElement) => area.setSelectionRange(5, 5));
  await expect(screen.locator('iframe')).toHaveCount(0);
  const open = screen.getByRole('button', { name: 'Choose an emoji' });
  await open.click();
  const picker = screen.frameLocator('iframe[title="Choose an emoji"]');
  await picker.getByRole('combobox').fill('seedling');
  await picker.getByRole('option', { name: /seedling/ }).click();
  await expect(field).toHaveValue('Well 🌱 , and come again');
  await picker.getByRole('combobox').fill('herb');
  await picker.getByRole('option', { name: /herb/ }).first().click();
  await expect(field).toHaveValue('Well 🌱🌿 , and come again');
  await expectClean(screen, 'the picker of emoji');
  await picker.getByRole('combobox').press('Escape');
  await expect(screen.locator('iframe')).toHaveCount(0);
  await expect(field).toBeFocused();
  await expect(open).toHaveAttribute('aria-expanded', 'false');
});

test('a visitor picks emoji in their language beside a mouse, and is spared them on a phone', async ({
  browser,
  porch,
}) => {
  const page = await watched(await browser.newContext({ ...wide, locale: 'de-DE' }));
  await page.goto(`${porch.site}/deutsch`);
  await page.getByRole('button', { name: /^Quillfern Nursery / }).click();
  const panel = page.frameLocator('iframe[title*="Quillfern Nursery"]');
  await panel.getByRole('button', { name: 'Emoji auswählen' }).click();
  const picker = panel.frameLocator('iframe[title="Emoji auswählen"]');
  await picker.getByRole('combobox').fill('spross');
  await picker
    .getByRole('option', { name: /spross/i })
    .first()
    .click();
  await expect(panel.getByRole('textbox')).toHaveValue('🌱');
  await panel.getByRole('button', { name: 'Emoji auswählen' }).click();
  await expect(panel.locator('iframe')).toHaveCount(0);
  await panel.getByRole('textbox').press('Enter');
  await expect(panel.getByRole('list').getByText('🌱')).toBeVisible();

  const phone = await watched(
    await browser.newContext({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
    }),
  );
  await phone.goto(porch.site);
  await phone.getByRole('button', { name: /^Quillfern Nursery / }).click();
  const small = phone.frameLocator('iframe[title*="Quillfern Nursery"]');
  await expect(small.getByRole('textbox')).toBeVisible();
  await expect(small.getByRole('button', { name: 'Choose an emoji' })).toBeHidden();
});
