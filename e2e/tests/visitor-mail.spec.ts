import type { OpeningHours } from '@porch/core/hours/opening';
import { expectClean } from '../kit/clean';
import { mailsOf, setMail } from '../kit/mail';
import { answer, expect, ownerPhone, test, visitorPhone } from '../kit/porch';

const minute = 60_000;
const hour = 60 * minute;
const day = [{ from: 540, to: 1_050 }];
const plain: OpeningHours = {
  week: [day, day, day, day, day, [], []],
  holidays: null,
  spells: [],
};

test('a note at night is answered in the morning by mail, the reply comes back by mail, and all of it stands in the panel', async ({
  browser,
  porch,
}) => {
  await setMail(porch);
  await porch.ask('PUT', '/api/hours', { hours: plain });
  await porch.pass(12 * hour);
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Please keep two bonsai for me');
  await visitor.sayWho();
  await visitor.panel.getByLabel('Email').fill('wren@post.example');
  await visitor.panel.getByRole('button', { name: 'Save' }).click();
  await expect(visitor.panel.getByText('We can reach you at wren@post.example')).toBeVisible();
  await visitor.page.goto('about:blank');
  await porch.pass(12 * hour);

  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('link', { name: /two bonsai/ }).click();
  // Whenever the house hears that they went, a minute later they are gone.
  await expect(async () => {
    await porch.pass(minute);
    await expect(phone.getByText(/^Goes by email to wren@post\.example, they left/)).toBeVisible({
      timeout: 1_000,
    });
  }).toPass();
  await answer(phone, 'They are yours.');
  await porch.pass(30_000);
  await expect.poll(async () => (await mailsOf(porch, 'wren@post.example')).length).toBe(1);
  const [mail] = await mailsOf(porch, 'wren@post.example');
  expect(mail?.subject).toBe('Your message to Quillfern Nursery');
  await expect(phone.getByText('Went by email to wren@post.example')).toBeVisible();
  await expect(phone.getByText('By email', { exact: true })).toBeVisible();

  // As a mail program shows it.
  const reader = await (await browser.newContext()).newPage();
  await reader.goto(`${porch.site}/mail/read/${mail?.id}`);
  const shown = reader.frameLocator('iframe[title="The mail"]');
  await expect(shown.getByText('They are yours.')).toBeVisible();
  await expect(shown.getByText('Please keep two bonsai for me')).toBeVisible();
  await reader.getByLabel('Your answer').fill('Thank you! I come on Saturday.');
  await reader.getByRole('button', { name: 'Send' }).click();
  await expect(reader.getByText(/The server said: 250/)).toBeVisible();
  await expect(phone.getByRole('log')).toContainText('Thank you! I come on Saturday.');
  await expect(phone.getByText('> They are yours.')).toBeHidden();
  await phone.getByRole('button', { name: 'Show the rest of the email' }).click();
  await expect(phone.getByText('> They are yours.')).toBeVisible();
  await phone.getByRole('button', { name: 'Hide the rest of the email' }).click();
  await expect(phone.getByText('> They are yours.')).toBeHidden();

  // From another address of theirs: nobody guesses.
  await reader.goto(`${porch.site}/mail/read/${mail?.id}`);
  await reader.getByLabel('Sent from').fill('wren@office.example');
  await reader.getByLabel('Your answer').fill('Make it three.');
  await reader.getByRole('button', { name: 'Send' }).click();
  await expect(
    phone.getByText(/^Is this theirs\? It came by email from wren@office/),
  ).toBeVisible();
  await phone.getByRole('button', { name: 'It is theirs', exact: true }).click();
  await porch.pass(1_000);
  await expect(phone.getByText('Make it three.', { exact: true })).toBeVisible();
  await expect(phone.getByRole('button', { name: 'It is theirs', exact: true })).toBeHidden();

  await visitor.page.goto(`${porch.site}/`);
  await visitor.page.getByRole('button', { name: /^Quillfern Nursery .*Write to us/ }).click();
  await expect(visitor.panel.getByText('They are yours.')).toBeVisible();
  await expect(visitor.panel.getByText('Thank you! I come on Saturday.')).toBeVisible();
  await expect(phone.getByText('Goes to: their screen, they are on the page')).toBeVisible();

  const link = /http\S+(\/mail\/stop\/\S+)/.exec(mail?.text ?? '')?.[1];
  for (const colorScheme of ['light', 'dark'] as const) {
    const stopping = await (await browser.newContext({ colorScheme })).newPage();
    await stopping.goto(`${porch.origin}${link}`);
    await expect(stopping.getByRole('heading', { name: 'Quillfern Nursery' })).toBeVisible();
    await expectClean(stopping, `the page that stops mails, ${colorScheme}`);
    await stopping.getByRole('button', { name: 'Stop these emails' }).click();
    await expect(stopping.getByText('No more emails come to this address.')).toBeVisible();
    await expectClean(stopping, `the page after that, ${colorScheme}`);
  }
  await visitor.page.goto('about:blank');
  await expect(async () => {
    await porch.pass(2 * minute);
    await expect(
      phone.getByText('They want no more emails: it will show if they come back'),
    ).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await expect(phone.getByText('They want no more emails at wren@post.example')).toBeVisible();
});

test('whoever leaves before reading gets it by mail; one that bounces is said so and owed again', async ({
  browser,
  porch,
}) => {
  await setMail(porch);
  await fetch(`${porch.site}/mail/wren@post.example`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: 'fault=bounce',
    redirect: 'manual',
  });
  const phone = await ownerPhone(browser, porch);
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Do you have ferns?');
  await visitor.sayWho();
  await visitor.panel.getByLabel('Email').fill('wren@post.example');
  await visitor.panel.getByRole('button', { name: 'Save' }).click();
  await expect(visitor.panel.getByText('We can reach you at wren@post.example')).toBeVisible();
  await phone.getByRole('link', { name: /have ferns/ }).click();
  await expect(phone.getByText('Goes to: their screen, they are on the page')).toBeVisible();
  await visitor.page.goto('about:blank');
  await answer(phone, 'Seven kinds of them.');
  // They are gone after a minute without a sign of them, and the owner lets it wait for two more.
  await expect(async () => {
    await porch.pass(minute);
    await expect(phone.getByText(/^Goes by email to/)).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await porch.pass(2 * minute);
  await expect(phone.getByText(/^Did not arrive by email at wren@post\.example: /)).toBeVisible();
  await expect(phone.getByText('Did not arrive', { exact: true })).toBeVisible();
  await phone.goto(`${porch.origin}/follow-ups`);
  await expect(phone.getByText(/^An answer did not arrive: /)).toBeVisible();
});
