import type { LinePage } from '@porch/contract/line';
import {
  answer,
  expect,
  openVisitor,
  owner,
  ownerPhone,
  test,
  visitorPhone,
  watched,
} from '../kit/porch';

test('the first visit makes the business and the account, and says what to do next', async ({
  browser,
  emptyPorch,
}) => {
  const page = await watched(await browser.newContext());
  await page.goto(emptyPorch.origin);
  await expect(page.getByRole('heading', { name: 'Set up your house' })).toBeVisible();
  await page.getByLabel('Code of the house').fill('AAAA-AAAA');
  await page.getByLabel('Name of the business').fill(owner.business);
  await page.getByLabel('Your name').fill(owner.name);
  await page.getByLabel('Email').fill(owner.email);
  await page.getByLabel('Password').fill(owner.password);
  await page.getByRole('button', { name: 'Open the house' }).click();
  await expect(page.getByRole('alert')).toContainText('not the code that the server printed');
  await page.getByLabel('Code of the house').fill(emptyPorch.server.firstCode ?? '');
  await page.getByRole('button', { name: 'Open the house' }).click();
  await expect(page.getByRole('heading', { name: 'Your business' })).toBeVisible();
  await page.getByLabel('Time zone').fill('Nowhere/At all');
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByRole('alert')).toContainText('time zone is not known');
  await page.getByRole('button', { name: 'Go on later' }).click();
  await expect(page.getByRole('heading', { name: 'Almost ready' })).toBeVisible();
  // The light claims nothing, and each thing that is left to do is one tap away.
  await expect(
    page.getByRole('button', { name: /^Porch light: Off: hours not set/ }),
  ).toBeVisible();
  const left = page.getByRole('list', { name: 'Almost ready' });
  await expect(left.getByRole('link').first()).toHaveAccessibleName(/^Set your opening hours/);
  await left.getByRole('link', { name: /^Put the chat on your website/ }).click();
  await expect(page.getByRole('region', { name: 'Website door' })).toContainText(
    '<script async src=',
  );
  await expect(page.getByText('No website yet')).toBeVisible();
});

test('a website is added as people type it, and nonsense is not', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await phone.getByRole('link', { name: /^Quillfern Nursery, Website door/ }).click();
  const door = phone.getByRole('region', { name: 'Website door' });
  const sites = door.getByLabel('Websites on which the door may stand');
  await sites.fill('https://www.Quillfern.example/shop\nnot a website');
  await door.getByRole('button', { name: 'Save' }).click();
  await expect(door.getByRole('alert')).toContainText('not a website’s address');
  await sites.fill('https://www.Quillfern.example/shop');
  await door.getByRole('button', { name: 'Save' }).click();
  await expect(sites).toHaveValue('quillfern.example');
});

test('signing out keeps nobody in, and asks first when something is unsent', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  await openVisitor(phone, 'Hello');
  expect(await phone.evaluate(() => document.cookie)).toBe('');
  // The screen's code is there before the signal goes.
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await expect(phone.getByRole('heading', { name: 'House', exact: true })).toBeVisible();
  await phone.getByRole('link', { name: /^The line/ }).click();
  await phone.getByRole('link', { name: /^Visitor/ }).click();
  await phone.context().setOffline(true);
  await answer(phone, 'Not sent yet');
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await phone.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(phone.getByRole('alert')).toContainText('still waiting on this device');
  await phone.getByRole('button', { name: 'Sign out anyway' }).click();
  await expect(phone.getByRole('alert').filter({ hasText: 'Something went wrong' })).toBeVisible();

  // Without signal nobody was signed out, and nothing was thrown away.
  await phone.context().setOffline(false);
  await phone.getByRole('link', { name: /^The line/ }).click();
  await expect(phone.getByRole('link', { name: /You: Not sent yet/ })).toBeVisible();
  await expect
    .poll(
      async () => (await porch.ask<LinePage>('GET', '/api/line?group=answered')).counts.answered,
    )
    .toBe(1);
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await phone.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await phone.goto(`${porch.origin}/line`);
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('wrong passwords are told in plain words, then slowed down', async ({ browser, porch }) => {
  const page = await watched(await browser.newContext());
  await page.goto(porch.origin);
  await page.getByLabel('Email').fill(owner.email);
  await page.getByLabel('Password').fill('wrong');
  const submit = page.getByRole('button', { name: 'Sign in' });
  await submit.click();
  await expect(page.getByRole('alert')).toContainText('do not fit together');
  for (let tries = 0; tries < 2; tries += 1) {
    const answered = page.waitForResponse(/sign-in/);
    await submit.click();
    await answered;
  }
  await submit.click();
  await expect(page.getByRole('alert')).toContainText('Try again in');
});

test('search finds words and people over everything ever said', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say, sayWho } = await visitorPhone(browser, porch);
  await say('Do you have a café table for the fern?');
  await sayWho();
  await panel.getByLabel('Name').fill('Wren Ashdown');
  await panel.getByRole('button', { name: 'Save' }).click();
  await phone.getByRole('link', { name: 'Search' }).click();
  const field = phone.getByLabel('Words, a name, an email');
  await field.fill('CAFE fer');
  await expect(phone.getByRole('link', { name: /Wren Ashdown/ })).toContainText('café table');
  await field.fill('ashd');
  await expect(phone.getByText('1 conversation')).toBeVisible();
  await field.fill('"; nothing like this');
  await expect(phone.getByText(/Nothing was found for/)).toBeVisible();
});

test('a wide screen is used by keyboard alone', async ({ browser, porch }) => {
  const wide = await ownerPhone(browser, porch, { viewport: { width: 1280, height: 800 } });
  const { panel, say } = await visitorPhone(browser, porch);
  await say('By keyboard, please');
  await expect(wide.getByRole('link', { name: /By keyboard/ })).toBeVisible();
  await wide.keyboard.press('?');
  await expect(wide.getByRole('heading', { name: 'Keyboard' })).toBeVisible();
  await wide.keyboard.press('Escape');
  await expect(wide.getByRole('heading', { name: 'Keyboard' })).toBeHidden();
  await wide.keyboard.press('j');
  await expect(wide.getByRole('heading', { name: /^Visitor/ })).toBeVisible();
  await expect(wide.getByRole('complementary', { name: 'Who’s this' })).toContainText(
    'On the page',
  );
  await wide.keyboard.press('r');
  await wide.keyboard.type('Typed with e, b and u in it');
  await wide.keyboard.press('Control+Enter');
  await expect(panel.getByText('Typed with e, b and u in it')).toBeVisible();
  await wide.keyboard.press('Escape');
  await wide.keyboard.press('e');
  await expect(wide.getByRole('button', { name: 'Wrapped up, 1' })).toBeVisible();
  await wide.keyboard.press('u');
  await expect(wide.getByRole('button', { name: 'Answered, 1' })).toBeVisible();
  await wide.keyboard.press('l');
  await expect(wide.getByRole('heading', { name: 'Porch light' })).toBeVisible();
  await wide.keyboard.press('Escape');
  await wide.keyboard.press('/');
  await expect(wide.getByLabel('Words, a name, an email')).toBeFocused();
});

for (const path of ['/nowhere/at/all', '/_sitemap']) {
  test(`${path} says that nothing is there, and leads back to the line`, async ({
    browser,
    porch,
  }) => {
    const phone = await ownerPhone(browser, porch);
    await phone.goto(porch.origin + path);
    await expect(phone.getByText('There is nothing at this address')).toBeVisible();
    await phone.getByRole('button', { name: 'Go to the line' }).click();
    await expect(phone).toHaveURL(`${porch.origin}/line`);
  });
}
