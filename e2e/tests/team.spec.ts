import { truncateSync, writeFileSync } from 'node:fs';
import { expect, owner, ownerPhone, test, watched } from '../kit/porch';

test('somebody is invited, comes in by the link once, and answers as a helper', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await screen.getByRole('link', { name: 'House', exact: true }).click();
  await screen.getByRole('link', { name: /^Team/ }).click();
  await screen.getByRole('button', { name: 'Make a link' }).click();
  const link = await screen.getByText(/\/join#/).innerText();
  const theirs = await watched(await browser.newContext());
  await theirs.goto(link);
  await expect(theirs.getByRole('heading', { name: 'Join Quillfern Nursery' })).toBeVisible();
  expect(theirs.url()).not.toContain('#');
  await theirs.getByLabel('Your name').fill('Ines Varga');
  await theirs.getByLabel('Email').fill('ines@quillfern.example');
  await theirs.getByLabel('Password').fill('short');
  await theirs.getByRole('button', { name: 'Come in' }).click();
  await expect(theirs.getByRole('alert')).toContainText('at least 10');
  await theirs.getByLabel('Password').fill('orders-on-the-shelf');
  await theirs.getByRole('button', { name: 'Come in' }).click();
  await expect(theirs.getByRole('heading', { name: 'Nobody is waiting' })).toBeVisible();

  // The owner sees it without a reload; the helper finds nothing that is the owner's.
  await expect(screen.getByRole('list', { name: 'Team' })).toContainText('Ines Varga');
  await theirs.getByRole('link', { name: 'House', exact: true }).click();
  await expect(theirs.getByRole('heading', { name: 'House', exact: true })).toBeVisible();
  await expect(theirs.getByText('Getting ready')).toHaveCount(0);
  await expect(theirs.getByRole('button', { name: 'Add a door' })).toHaveCount(0);

  const late = await watched(await browser.newContext());
  await late.goto(link);
  await expect(late.getByRole('alert')).toContainText('used already');

  await screen.getByRole('button', { name: 'More about Ines Varga' }).click();
  await screen.getByRole('button', { name: 'Link to a new password' }).click();
  const fresh = await screen.getByText(/\/new-password#/).innerText();
  await late.goto(fresh);
  await expect(late.getByRole('heading', { name: 'A new password' })).toBeVisible();
  await late.getByLabel('New password').fill('a shelf of new orders');
  await late.getByRole('button', { name: 'Save and sign in' }).click();
  await expect(late.getByRole('heading', { name: 'Nobody is waiting' })).toBeVisible();
  await expect(theirs.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  await screen.getByRole('button', { name: 'Let go' }).click();
  await screen.getByRole('alert').getByRole('button', { name: 'Let go' }).click();
  await expect(screen.getByRole('list', { name: 'Team' })).toContainText('has left');
  await expect(late.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('a phone signs in by a code, after the same two words were confirmed', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch, { viewport: { width: 1280, height: 800 } });
  await screen.getByRole('link', { name: 'House', exact: true }).click();
  await screen.getByRole('button', { name: 'Sign in a phone' }).click();
  await expect(screen.getByRole('img', { name: /Code for the phone/ })).toBeVisible();
  const link = await screen.getByText(/\/pair#/).innerText();
  const phone = await watched(await browser.newContext());
  await phone.route('**/api/pairings/collect', (route) => route.abort(), { times: 1 });
  const lost = phone.waitForEvent('requestfailed');
  await phone.goto(link);
  await lost;
  const shown = phone.getByRole('status').filter({ hasText: /^\w+ \w+$/ });
  await expect(shown).toBeVisible();
  const words = await shown.innerText();
  await expect(screen.getByRole('alert')).toContainText(words);
  await screen.getByRole('button', { name: 'Yes, the same words' }).click();
  await expect(screen.getByText('The phone is signed in.')).toBeVisible();
  await expect(phone.getByRole('heading', { name: 'Almost ready' })).toBeVisible();
  const late = await watched(await browser.newContext());
  await late.goto(link);
  await expect(late.getByRole('alert')).toContainText('used up or too old');
});

test('one shows a public name and a face, and changes the password by the old one', async ({
  browser,
  porch,
}, testInfo) => {
  const screen = await ownerPhone(browser, porch);
  await screen.getByRole('link', { name: 'House', exact: true }).click();
  await screen.getByRole('link', { name: /^You/ }).click();
  await screen.getByLabel('Public name').fill('Maren');
  await screen.getByRole('button', { name: 'Save' }).click();
  await expect(screen.getByText('Saved')).toBeVisible();
  const choosing = screen.waitForEvent('filechooser');
  await screen.getByRole('button', { name: 'Choose a picture' }).click();
  const huge = testInfo.outputPath('huge.jpg');
  writeFileSync(huge, '');
  truncateSync(huge, 40 * 1024 * 1024);
  await (await choosing).setFiles(huge);
  await expect(screen.getByRole('alert')).toContainText('larger than 10 MB');
  await screen.getByLabel('The old one').fill('wrong');
  await screen.getByLabel('The new one').fill('fern-by-another-window');
  await screen.getByRole('button', { name: 'Change it' }).click();
  await expect(screen.getByRole('alert').last()).toContainText('That password isn’t right');
  await screen.getByLabel('The old one').fill(owner.password);
  await screen.getByRole('button', { name: 'Change it' }).click();
  await expect(screen.getByText('Your other devices are signed out')).toBeVisible();
  await screen.getByRole('button', { name: 'Leave the team' }).click();
  await screen.getByRole('button', { name: 'Leave', exact: true }).click();
  await expect(screen.getByRole('alert').last()).toContainText('needs an owner');
  const visitor = await watched(await browser.newContext());
  await visitor.goto(porch.site);
  await visitor.getByRole('button', { name: /\. Write to us/ }).click();
  await expect(visitor.frameLocator('iframe').getByText('Maren', { exact: true })).toBeVisible();
});

test('an owner who forgot the password gets in again by a command on the server', async ({
  browser,
  porch,
}) => {
  const page = await watched(await browser.newContext());
  await page.goto(porch.origin);
  await page.getByRole('button', { name: 'Forgot the password?' }).click();
  await expect(page.getByText('npm run new-password')).toBeVisible();
  const link = /http\S+#\S+/.exec(porch.newPassword())?.[0] ?? '';
  await page.goto(link);
  await page.getByLabel('New password').fill('fern-in-the-doorway');
  await page.getByRole('button', { name: 'Save and sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Almost ready' })).toBeVisible();
});
