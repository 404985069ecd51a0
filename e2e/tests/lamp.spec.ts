import { answer, expect, ownerPhone, test, visitorPhone, watched } from '../kit/porch';

test('the lamp is seen at once on the plate and in the panel, and comes back by itself', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const passing = await watched(await browser.newContext());
  await passing.goto(porch.site);
  const plate = passing.getByRole('button', { name: /^Write to Quillfern Nursery/ });
  await expect(plate).toHaveAccessibleName(/Answering now/);
  const { panel } = await visitorPhone(browser, porch);

  await phone.getByRole('button', { name: /^Porch light/ }).click();
  await phone.getByRole('button', { name: '30 min' }).click();
  await expect(phone.getByRole('button', { name: /Porch light: Back at 10:30/ })).toBeVisible();
  await expect(plate).toHaveAccessibleName(/Back at /);
  await expect(panel.getByText(/^Back at /)).toBeVisible();

  await porch.pass(31 * 60_000);
  await expect(phone.getByRole('button', { name: /Porch light: Answering now/ })).toBeVisible();
  await expect(plate).toHaveAccessibleName(/Answering now/);
  await expect(panel.getByText('Answering now')).toBeVisible();
});

test('the light is lit by hand before its time, and what it shows already is not offered', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const lamp = phone.getByRole('button', { name: /^Porch light/ });
  const answerNow = phone.getByRole('button', { name: 'Answer now' });
  await lamp.click();
  await expect(phone.getByRole('button', { name: 'Go dark' })).toBeVisible();
  await expect(answerNow).toBeHidden();
  await phone.getByRole('button', { name: 'Go dark' }).click();
  await expect(lamp).toHaveAccessibleName(/Dark until you light it/);
  await lamp.click();
  await expect(answerNow).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Go dark' })).toBeHidden();
  await answerNow.click();
  await expect(lamp).toHaveAccessibleName(/Answering now/);
});

test('a time is typed as people write it, and nonsense is said to be nonsense', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('button', { name: /^Porch light/ }).click();
  await phone.getByLabel('Back at').fill('25:99');
  await phone.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(phone.getByRole('alert')).toContainText('Write a time as 14:30');
  await phone.getByLabel('Back at').fill('14:15');
  await phone.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(phone.getByRole('button', { name: /Porch light: Back at 14:15/ })).toBeVisible();
});

test('while nobody is in, a note is taken, with a way to reach the person, until it is answered', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('button', { name: /^Porch light/ }).click();
  await phone.getByRole('button', { name: 'Go dark' }).click();
  const { panel, say } = await visitorPhone(browser, porch);
  await expect(panel.getByText('Nobody is in right now')).toBeVisible();
  await say('Please keep two bonsai for me');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByRole('alert')).toContainText('Give an email or a phone number');
  await panel.getByLabel('Phone', { exact: true }).fill('07700 900123');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByText('We can reach you at 07700 900123')).toBeVisible();

  await expect(phone.getByRole('button', { name: 'Left a note, 1' })).toBeVisible();
  await phone.getByRole('link', { name: /two bonsai/ }).click();
  await answer(phone, 'They are yours');
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await expect(phone.getByRole('button', { name: 'Left a note, 0' })).toBeVisible();
});

test('a new message sounds, unless that is turned off', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  await phone.evaluate(() => {
    document.addEventListener('porch:rang', () => {
      document.documentElement.dataset.rang = String(
        Number(document.documentElement.dataset.rang ?? 0) + 1,
      );
    });
  });
  const { say } = await visitorPhone(browser, porch);
  await say('Ring');
  await expect(phone.locator('html')).toHaveAttribute('data-rang', '1');
  await phone.getByRole('link', { name: 'House' }).click();
  await phone.getByRole('switch', { name: 'Sound when somebody writes' }).click();
  await say('Silence');
  await expect(phone.getByRole('link', { name: 'The line 1' })).toBeVisible();
  await phone.getByRole('link', { name: /The line/ }).click();
  await expect(phone.getByRole('link', { name: /Silence/ })).toBeVisible();
  await expect(phone.locator('html')).toHaveAttribute('data-rang', '1');
});
