import type { OpeningHours } from '@porch/core/hours/opening';
import { answer, expect, owner, ownerPhone, type Porch, test, visitorPhone } from '../kit/porch';

const hour = 3_600_000;
const day = [{ from: 540, to: 1_050 }];
const plain: OpeningHours = {
  week: [day, day, day, day, day, [], []],
  holidays: null,
  spells: [],
};
/** The evening after the house has closed. */
const atNight = async (porch: Porch): Promise<void> => {
  await porch.ask('PUT', '/api/hours', { hours: plain });
  await porch.pass(12 * hour);
};

test('a note left at night is owed in the morning, rings nobody’s memory, and is done by its answer', async ({
  browser,
  porch,
}) => {
  await atNight(porch);
  const phone = await ownerPhone(browser, porch);
  const { panel, say } = await visitorPhone(browser, porch);
  await say('Please keep two bonsai for me');
  await expect(
    panel.getByText(
      /^Thank you, we have it\. We answer when we are back: Friday .*, in 11 hours\.$/,
    ),
  ).toBeVisible();
  await say('And a fern');
  await expect(panel.getByText('And a fern')).toBeVisible();
  await expect(panel.getByText(/^Thank you, we have it/)).toHaveCount(1);

  await phone.getByRole('link', { name: 'Follow-ups', exact: true }).click();
  await expect(phone.getByText('Due Fri 09:30')).toBeVisible();
  await expect(phone.getByRole('heading', { name: 'Later, 1' })).toBeVisible();
  await porch.pass(12 * hour);
  await expect(phone.getByRole('heading', { name: 'Late, 1' })).toBeVisible({ timeout: 90_000 });
  await phone.getByRole('link', { name: /And a fern/ }).click();
  await answer(phone, 'They are yours');
  await expect(panel.getByText('They are yours')).toBeVisible();
  await expect(phone.getByRole('log')).toContainText('done what was owed');
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await phone.getByRole('link', { name: /^Follow-ups/ }).click();
  await expect(phone.getByText('Nothing is owed')).toBeVisible();
  await phone.getByRole('button', { name: 'What is done' }).click();
  await expect(
    phone.getByText(/^Done Fri 10:00 by Maren Oduya|^Done 10:00 by Maren Oduya/),
  ).toBeVisible();
});

test('something is promised by hand in words, taken, done, and undone; a calendar reads it', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('When are the figs in?');
  await phone.getByRole('link', { name: /figs in/ }).click();
  await phone.getByRole('button', { name: 'Who’s this' }).click();
  await phone.getByRole('button', { name: 'Follow up …' }).click();
  const sheet = phone.getByRole('dialog', { name: /^Follow up: / });
  await sheet.getByLabel('What is owed').fill('Tell them about the figs');
  await sheet.getByLabel('Or write it').fill('yesterday');
  await sheet.getByRole('button', { name: 'Write it down' }).click();
  await expect(sheet.getByRole('alert')).toContainText('no day and time to come');
  await sheet.getByLabel('Or write it').fill('in two weeks');
  await sheet.getByRole('button', { name: 'Write it down' }).click();
  await expect(phone.getByRole('log')).toContainText(
    'Maren Oduya promised: Tell them about the figs, by 26 Nov',
  );
  await phone.goto(`${porch.origin}/follow-ups`);
  const row = phone.getByRole('listitem').filter({ hasText: 'Tell them about the figs' });
  await expect(row).toContainText('For whoever comes first');
  await row.getByRole('button', { name: /^I do it/ }).click();
  await expect(row).toContainText('For Maren Oduya');
  await row.getByRole('button', { name: /^Done/ }).click();
  await expect(row).toBeHidden();
  await phone.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toBeVisible();

  await phone.getByRole('button', { name: 'Make an address' }).click();
  await phone.getByLabel('Your password').fill(owner.password);
  await phone.getByRole('button', { name: 'Make an address' }).click();
  const address = await phone.getByText(/\/feeds\//).textContent();
  const read = async (): Promise<Response> => fetch(address ?? '');
  expect(await (await read()).text()).toContain('Tell them about the figs');
  await phone.getByRole('button', { name: 'Make a new address' }).click();
  await phone.getByLabel('Your password').fill(owner.password);
  await phone.getByRole('button', { name: 'Make a new address' }).click();
  await expect.poll(async () => (await read()).status).toBe(404);
});

test('without a plate nothing stands on the website while nobody is in, and with hours only nobody can write', async ({
  browser,
  porch,
}) => {
  await porch.ask('PUT', '/api/hours', { hours: plain });
  await porch.dress((dress) => {
    dress.whenNotLit = 'no-plate';
  });
  const page = await (await browser.newContext()).newPage();
  await page.goto(porch.site);
  const plate = page.getByRole('button', { name: /Write to us/ });
  await expect(plate).toBeVisible();
  await porch.pass(12 * hour);
  await expect(plate).toBeHidden();
  await porch.dress((dress) => {
    dress.whenNotLit = 'hours';
  });
  const { publicId } = await porch.door();
  await page.goto(`${porch.origin}/talk/${publicId}`);
  await expect(page.getByText('Nobody takes messages here just now.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'When we are in' })).toBeVisible();
  await expect(page.getByRole('textbox')).toHaveCount(0);
  await porch.pass(12 * hour);
  await expect(page.getByRole('textbox', { name: 'Your message' })).toBeVisible();
});
