import { expectClean } from '../kit/clean';
import { mailsOf, setMail } from '../kit/mail';
import { answer, expect, ownerPhone, type Porch, test, visitorPhone } from '../kit/porch';

/** Somebody on the street writes a mail of their own. */
const writes = async (
  porch: Porch,
  letter: { from: string; subject: string; text: string; kind?: 'person' | 'list' | 'pictures' },
): Promise<void> => {
  const response = await fetch(`${porch.site}/mail`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ to: 'hello@quillfern.example', kind: 'person', ...letter }),
  });
  expect(await response.text()).toContain('250');
};

test('mails to the business stand in the line, are answered by mail, and a likely match is proposed', async ({
  browser,
  porch,
}) => {
  await setMail(porch);
  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house/new-door`);
  await phone.getByRole('button', { name: /^Mail,/ }).click();
  await phone.getByLabel('Addresses that people write to').fill('hello@quillfern');
  await phone.getByRole('button', { name: 'Add it' }).click();
  await expect(phone.getByText('This does not look like an email address.')).toBeVisible();
  await phone.getByLabel('Addresses that people write to').fill('hello@quillfern.example');
  await phone.getByRole('button', { name: 'Add it' }).click();
  await phone.getByRole('button', { name: 'Ask whether all is well' }).click();
  await expect(phone.getByText('All is well.')).toBeVisible();

  await writes(porch, {
    from: 'news@growers.example',
    subject: 'This week',
    text: 'Ten ferns for shade',
    kind: 'list',
  });
  await writes(porch, {
    from: 'rosa@post.example',
    subject: 'Ferns for a wedding',
    text: 'Could we borrow twenty?',
    kind: 'pictures',
  });
  await phone.goto(`${porch.origin}/line`);
  const row = phone.getByRole('link', { name: /Ferns for a wedding: Could we borrow twenty/ });
  await expect(row).toBeVisible();
  await expect(phone.getByRole('button', { name: /^Waiting, 1/ })).toBeVisible();
  await row.click();
  const roll = phone.getByRole('log');
  await expect(roll.getByText('Ferns for a wedding', { exact: true })).toBeVisible();
  await expect(roll.getByRole('button', { name: /^Open picture/ })).toHaveCount(0);
  await roll.getByRole('button', { name: 'Show its picture' }).click();
  await expect(roll.getByRole('button', { name: /^Open picture/ })).toHaveCount(1);
  await expectClean(phone, 'a mail with its pictures');
  await answer(phone, 'With pleasure.');
  await expect(roll.getByText('Sent', { exact: true })).toBeVisible();
  await expect
    .poll(async () => (await mailsOf(porch, 'rosa@post.example')).map(({ subject }) => subject))
    .toEqual(['Re: Ferns for a wedding']);

  // The same person on the website says the same address: that is proposed, and theirs to say who looks.
  const { panel, say, sayWho } = await visitorPhone(browser, porch);
  await say('Me again');
  await sayWho();
  await panel.getByLabel('Email').fill('Rosa@post.example');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByText(/We can reach you at/)).toBeVisible();
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await phone.getByRole('link', { name: /Me again/ }).click();
  await phone.getByRole('button', { name: 'Who’s this' }).click();
  await expect(phone.getByText('Perhaps the same person')).toBeVisible();
  await expect(phone.getByText('the same email, as they say')).toBeVisible();
  await expectClean(phone, 'somebody who may be the same');
  await phone.getByRole('button', { name: /^The same person as .* · Mail$/ }).click();
  await expect(roll.getByText('Could we borrow twenty?')).toBeVisible();
  await expect(panel.getByText('Could we borrow twenty?')).toHaveCount(0);
  await phone.getByRole('button', { name: 'Undo' }).click();
  await expect(roll.getByText('Could we borrow twenty?')).toHaveCount(0);

  // What no person wrote is done with, and says why.
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await phone.getByRole('button', { name: /^Wrapped up, 1/ }).click();
  await phone.getByRole('link', { name: /Ten ferns for shade/ }).click();
  await expect(roll.getByText(/written by a program, so nobody waits/)).toBeVisible();
});

test('a visitor asks to be called back, and it is a follow-up for the time that they chose', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { id } = await porch.door();
  await phone.goto(`${porch.origin}/house/dress/${id}`);
  await phone.getByRole('radio', { name: 'Guest book', exact: true }).click();
  await phone.getByRole('switch', { name: /Let visitors ask to be called back/ }).click();
  await expect(phone.getByText('Draft saved')).toBeVisible();
  await phone.getByRole('button', { name: 'Publish' }).click();
  await expect(phone.getByText(/^Published/).first()).toBeVisible();

  const { panel, page } = await visitorPhone(browser, porch);
  await panel.getByRole('button', { name: 'Rather be called back?' }).click();
  const ask = panel.getByRole('button', { name: 'Ask for a call' });
  await ask.click();
  await expect(panel.getByText('This is needed.')).toBeVisible();
  await panel.getByLabel('Phone').fill('tomorrow');
  await ask.click();
  await expect(panel.getByText(/does not look like a phone number/)).toBeVisible();
  await panel.getByLabel('Phone').fill('07700 900123');
  // As far as their own clock goes, which no test sets.
  const soon = new Date(Date.now() + 24 * 3_600_000);
  const local = new Date(soon.getTime() - soon.getTimezoneOffset() * 60_000);
  await panel.getByLabel(/^When/).fill('2020-01-01T10:00');
  await ask.click();
  await expect(panel.getByText(/This time has passed/)).toBeVisible();
  await expectClean(page, 'asking to be called back');
  await panel.getByLabel(/^When/).fill(local.toISOString().slice(0, 16));
  await panel.getByLabel('What it is about').fill('The big monstera');
  await ask.click();
  await expect(panel.getByText(/Call me back at/)).toBeVisible();
  await expect(panel.getByText('The big monstera')).toBeVisible();

  await phone.goto(`${porch.origin}/line`);
  await phone.getByRole('link', { name: /The big monstera/ }).click();
  const roll = phone.getByRole('log');
  await expect(roll.getByText(/Asks to be called at \+447700900123,/)).toBeVisible();
  await expect(roll.getByRole('link', { name: 'Call +447700900123' })).toHaveAttribute(
    'href',
    'tel:+447700900123',
  );
  await expectClean(phone, 'somebody who wants to be called');
  await phone.goto(`${porch.origin}/follow-ups`);
  await expect(phone.getByText(/To be called back/)).toBeVisible();
});
