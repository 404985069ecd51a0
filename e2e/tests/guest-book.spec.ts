import { expect, openPanel, openVisitor, ownerPhone, test, watched } from '../kit/porch';

test('what is needed is asked before writing, checked, and stands in the line', async ({
  browser,
  porch,
}) => {
  await porch.dress((dress) => {
    dress.guestBook.own = [
      { id: 'which-plant-1', kind: 'choice', label: 'Which plant?', choices: ['Fern', 'Palm'] },
    ];
    dress.guestBook.lit = {
      when: 'before',
      asks: [
        { field: 'phone', isRequired: true },
        { field: 'which-plant-1', isRequired: false },
      ],
    };
  });
  const phone = await ownerPhone(browser, porch);
  const page = await watched(await browser.newContext());
  await page.goto(porch.site);
  const { panel, say } = await openPanel(page);
  await expect(panel.getByRole('textbox', { name: 'Your message' })).toHaveCount(0);
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByRole('alert')).toHaveText('This is needed.');
  await panel.getByLabel('Phone').fill('07700 9');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByRole('alert')).toContainText('does not look like a phone number');
  await panel.getByLabel('Phone').fill('07700 900123');
  await panel.getByLabel('Which plant?').selectOption('Fern');
  await panel.getByRole('button', { name: 'Save' }).click();
  await say('How often does it want water?');
  // They are called by what they left as soon as that is here, before their words or after.
  await phone.getByRole('link', { name: /How often does it want water/ }).click();
  await expect(phone.getByRole('log')).toContainText('+447700900123');
  await expect(phone.getByRole('log')).toContainText('Which plant? Fern');
  await page.reload();
  const again = await openPanel(page);
  await expect(again.panel.getByText('We can reach you at +447700900123')).toBeVisible();
});

test('with consent asked nothing is kept, here or there, before the tick', async ({
  browser,
  porch,
}) => {
  await porch.dress((dress) => {
    dress.consent = { isAsked: true, link: 'https://quillfern.example/privacy' };
  });
  const page = await watched(await browser.newContext());
  await page.goto(porch.site);
  const { panel, say } = await openPanel(page);
  await expect(panel.getByRole('link', { name: 'Privacy notice' })).toBeVisible();
  await say('Hello');
  await expect(panel.getByRole('alert')).toContainText('Nothing of yours is kept before');
  const stored = async () => {
    const inFrame = await page.frames()[1]?.evaluate(() => ({ ...localStorage }));
    const onPage = await page.evaluate(() => ({ ...localStorage, ...sessionStorage }));
    return [inFrame, onPage];
  };
  expect(await stored()).toEqual([{}, {}]);
  expect(await page.context().cookies()).toEqual([]);
  await panel.getByRole('checkbox').click();
  await panel.getByRole('button', { name: 'Send' }).click();
  await expect(panel.getByText('Sent').or(panel.getByText('Arrived'))).toBeVisible();
  expect(Object.keys((await stored())[0] ?? {}).length).toBeGreaterThan(0);
  const phone = await ownerPhone(browser, porch);
  await openVisitor(phone, 'Hello');
  await expect(phone.getByRole('log')).toContainText('Agreed: “I agree that what I write');
  await page.reload();
  const again = await openPanel(page);
  await expect(again.panel.getByText('Hello', { exact: true })).toBeVisible();
  await expect(again.panel.getByRole('checkbox')).toHaveCount(0);
});
