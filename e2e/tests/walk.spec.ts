import type { Locator } from '@playwright/test';
import sharp from 'sharp';
import { answer, expect, openPanel, owner, test, watched } from '../kit/porch';

/** What docs/website-door.md says of the walk. */
const TAPS_MOST = 30;

test('an owner goes from nothing to a tested door on their website, on a phone, step by step', async ({
  browser,
  emptyPorch: porch,
}) => {
  let taps = 0;
  const tap = async (what: Locator): Promise<void> => {
    taps += 1;
    await what.click();
  };
  const fill = async (what: Locator, text: string): Promise<void> => {
    taps += 1;
    await what.fill(text);
  };
  const phone = await watched(
    await browser.newContext({ permissions: ['clipboard-read', 'clipboard-write'] }),
  );
  const button = (name: string | RegExp) => phone.getByRole('button', { name, exact: true });

  // The address that the server prints has the code of the house in it.
  const code = porch.server.firstCode ?? '';
  await phone.goto(`${porch.origin}/set-up#${code}`);
  await expect(phone.getByLabel('Code of the house')).toHaveValue(code);
  expect(phone.url()).not.toContain(code);
  await fill(phone.getByLabel('Name of the business'), owner.business);
  await fill(phone.getByLabel('Your name'), owner.name);
  await fill(phone.getByLabel('Email'), owner.email);
  await fill(phone.getByLabel('Password'), owner.password);
  await tap(button('Open the house'));

  await expect(phone.getByRole('heading', { name: 'Your business' })).toBeVisible();
  const choosing = phone.waitForEvent('filechooser');
  await tap(button('Choose a picture'));
  const buffer = await sharp({
    create: { width: 600, height: 400, channels: 3, background: '#2f6247' },
  })
    .png()
    .toBuffer();
  await (await choosing).setFiles({ name: 'fern.png', mimeType: 'image/png', buffer });
  await tap(button('Closer'));
  await tap(button('Take this part'));
  await expect(button('Choose another')).toBeVisible();
  await tap(phone.getByRole('radio', { name: 'Round' }));
  await expect(phone.getByRole('radio', { name: 'Round' })).toBeChecked();
  await fill(phone.getByLabel('Address to write to'), 'nowhere');
  await tap(button('Next'));
  await expect(phone.getByRole('alert')).toContainText('does not look like an email');
  await fill(phone.getByLabel('Address to write to'), 'hello@quillfern.example');
  await tap(button('Next'));

  await expect(phone.getByRole('heading', { name: 'When do you answer?' })).toBeVisible();
  await tap(button('Day and night'));

  // Left and taken up again: the walk is where it was.
  await expect(phone.getByRole('heading', { name: 'Your website' })).toBeVisible();
  await tap(button('Go on later'));
  await tap(phone.getByRole('link', { name: 'House', exact: true }));
  await tap(button('Go on setting up'));
  await porch.signIn();
  const { publicId } = await porch.door();
  await porch.openStreet(publicId);
  await fill(
    phone.getByLabel('Address of your website'),
    `HTTP://${new URL(porch.site).host}/shop`,
  );
  await tap(button('Next'));

  await expect(phone.getByText('Not seen on your website yet')).toBeVisible();
  await tap(button('Copy the snippet'));
  expect(await phone.evaluate(() => navigator.clipboard.readText())).toContain(publicId);
  const visitor = await watched(await browser.newContext());
  await visitor.goto(`${porch.site}/delivery`);
  await expect(visitor.getByRole('button', { name: /\. Write to us/ })).toBeVisible();
  await porch.pass(1_000);
  await expect(phone.getByText(/^Seen on 127\.0\.0\.1:\d+\/delivery/)).toBeVisible();
  await tap(button('Next'));

  const tryOut = phone.frameLocator('iframe[title="Your door, as a visitor sees it"]');
  await fill(tryOut.getByRole('textbox', { name: 'Your message' }), 'Does it work?');
  await tap(tryOut.getByRole('button', { name: 'Send' }));
  await expect(tryOut.getByText('Sent').or(tryOut.getByText('Arrived'))).toBeVisible();
  await expect(phone.getByText('It has arrived. Answer it now.')).toBeVisible();
  await tap(button('Open the conversation'));
  await expect(phone.getByRole('log')).toContainText('Does it work?');
  taps += 2;
  await answer(phone, 'It does.');
  await expect(phone.getByRole('log')).toContainText('It does.');

  const { panel, say } = await openPanel(visitor);
  await say('Is the fern still there?');
  await tap(phone.getByRole('button', { name: 'Back to the line' }));
  await tap(phone.getByRole('link', { name: /Is the fern still there/ }));
  taps += 2;
  await answer(phone, 'It is, come by.');
  await expect(panel.getByText('It is, come by.')).toBeVisible();
  test.info().annotations.push({ type: 'taps', description: `${taps}` });
  expect(taps).toBeLessThanOrEqual(TAPS_MOST);

  // What was done has ticked itself.
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  const list = phone.getByRole('list', { name: 'Getting ready' });
  const item = (name: string) => list.getByRole('listitem').filter({ hasText: name });
  for (const name of ['on your website', 'phone is signed in', 'test message']) {
    await expect(item(name)).toContainText('Done');
  }
  await expect(item('The team is in')).toContainText('To do');
  await item('The team is in').getByRole('button', { name: 'I work alone' }).click();
  await expect(item('The team is in')).toContainText('Done');
});

test('a website where the door may not stand is told, and allowed with one tap', async ({
  browser,
  porch,
}) => {
  await porch.ask('PUT', `/api/doors/${(await porch.door()).id}`, { sites: ['elsewhere.example'] });
  const visitor = await (await browser.newContext()).newPage();
  const refused = visitor.waitForEvent('requestfailed', (request) =>
    request.url().includes('configuration.js'),
  );
  await visitor.goto(porch.site);
  await refused;
  await porch.pass(1_000);
  const phone = await watched(await browser.newContext());
  await phone.goto(porch.origin);
  await phone.getByLabel('Email').fill(owner.email);
  await phone.getByLabel('Password').fill(owner.password);
  await phone.getByRole('button', { name: 'Sign in' }).click();
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await expect(phone.getByText(/Not seen yet, last looked/)).toBeVisible();
  await phone.getByRole('button', { name: /^Allow 127\.0\.0\.1/ }).click();
  await expect(phone.getByText(/^Done · Seen on 127\.0\.0\.1/)).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByRole('button', { name: /\. Write to us/ })).toBeVisible();
});

test('what was typed before the house was set up is there after a reload; a password is not', async ({
  browser,
  emptyPorch,
}) => {
  const phone = await watched(await browser.newContext());
  await phone.goto(emptyPorch.origin);
  await phone.getByLabel('Name of the business').fill(owner.business);
  await phone.getByLabel('Email').fill(owner.email);
  await phone.getByLabel('Password').fill(owner.password);
  await phone.reload();
  await expect(phone.getByLabel('Email')).toHaveValue(owner.email);
  await expect(phone.getByLabel('Name of the business')).toHaveValue(owner.business);
  await expect(phone.getByLabel('Password')).toHaveValue('');
});
