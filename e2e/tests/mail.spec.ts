import { mailsOf } from '../kit/mail';
import { expect, ownerPhone, type Porch, test, unfold, visitorPhone } from '../kit/porch';

const minute = 60_000;

const answer = async (porch: Porch, id: number, text: string, from?: string): Promise<string> => {
  const response = await fetch(`${porch.site}/mail/read/${id}/answer`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ text, from }),
  });
  return ((await response.json()) as { said: string }).said;
};

test('mail is set up and tried on a screen; an alert comes by it, and its answer reaches the visitor', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house/doorbell`);
  await expect(phone.getByText('Nothing goes out by email yet')).toBeVisible();
  await phone.getByRole('button', { name: 'Set up mail' }).click();
  // By its address alone, where that can be found out; nobody has mail at this one.
  await phone.getByLabel('Email address').fill('hello@nowhere.invalid');
  await phone.getByRole('button', { name: 'Find my mail servers' }).click();
  await expect(phone.getByText(/We found no mail servers for this address/)).toBeVisible();
  await phone.getByRole('button', { name: 'Enter the servers yourself' }).click();
  const out = phone.getByRole('region', { name: 'Mail that goes out' });
  await out.getByRole('switch', { name: 'Write alerts by email' }).click();
  await out.getByLabel('Server', { exact: true }).fill('127.0.0.1');
  await expect(out.getByLabel('Port', { exact: true })).toHaveValue('465');
  await out.getByLabel('Encryption').selectOption('After a greeting (often 587)');
  await expect(out.getByLabel('Port', { exact: true })).toHaveValue('587');
  await out.getByLabel('Encryption').selectOption('None');
  await out.getByLabel('Port', { exact: true }).fill('70000');
  await expect(out.getByText('A port is a number from 1 to 65535.')).toBeVisible();
  await out.getByLabel('Port', { exact: true }).fill(String(porch.streetMailPort));
  await out.getByLabel('From which address').fill('hello@quillfern.example');
  await out.getByRole('button', { name: 'Save' }).click();
  await out.getByRole('button', { name: 'Send me a test' }).click();
  await expect(out.getByText(/It was taken/)).toBeVisible();
  expect(await mailsOf(porch, 'maren@quillfern.example')).toMatchObject([
    { subject: 'Quillfern Nursery: mail goes out' },
  ]);
  const into = phone.getByRole('region', { name: 'Answers by mail' });
  await into.getByRole('radio', { name: 'By a port of this server' }).click();
  await into.getByLabel('Mail domain').fill('quillfern.example');
  await into.getByRole('button', { name: 'Save' }).click();
  await expect(into.getByText('Saved')).toBeVisible();

  const { panel, say } = await visitorPhone(browser, porch);
  await say('Is the bench open on Saturday?');
  await expect(panel.getByText('Sent').or(panel.getByText('Arrived'))).toBeVisible();
  await phone.goto('about:blank');
  await porch.pass(5 * minute);
  await expect.poll(async () => (await mailsOf(porch, 'maren@quillfern.example')).length).toBe(2);
  const [, alert] = await mailsOf(porch, 'maren@quillfern.example');
  if (!alert) throw new Error('no alert came');
  expect(alert.subject).toBe('Visitor on Houseplants waits: Is the bench open on Saturday?');

  // As a mail program shows it.
  const reader = await (await browser.newContext()).newPage();
  await reader.goto(`${porch.site}/mail/read/${alert.id}`);
  const shown = reader.frameLocator('iframe[title="The mail"]');
  await expect(shown.getByText('Is the bench open on Saturday?')).toBeVisible();
  await reader.getByLabel('Your answer').fill('Until four. Come by!');
  await reader.getByRole('button', { name: 'Send' }).click();
  await expect(reader.getByText(/The server said: 250/)).toBeVisible();
  await expect(panel.getByText('Until four. Come by!')).toBeVisible();

  // A stranger who got hold of the mail answers nobody.
  expect(await answer(porch, alert.id, 'Free ferns!', 'stranger@post.example')).toMatch(/^250/);
  await phone.goto(`${porch.origin}/line`);
  await phone.getByRole('link', { name: /^Visitor/ }).click();
  await expect(phone.getByRole('log')).toContainText('Until four. Come by!');
  await expect(
    phone.getByText(/An answer by email from stranger@post.example was not passed on/),
  ).toBeVisible();
  await unfold(phone);
  await expect(phone.getByText(/wrote to Maren Oduya/i)).toBeVisible();
  await expect(panel.getByText('Free ferns!')).toHaveCount(0);
  await expect
    .poll(async () => (await mailsOf(porch, 'stranger@post.example')).map(({ subject }) => subject))
    .toEqual(['Your answer was not sent']);
});
