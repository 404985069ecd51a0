import type { Page } from '@playwright/test';
import { answer, expect, ownerPhone, test, visitorPhone } from '../kit/porch';

/** The owner opens the conversation in which this was said last. */
const openBy = async (phone: Page, said: string): Promise<void> => {
  await phone.getByRole('link', { name: new RegExp(`^Visitor.*${said}`) }).click();
  await expect(phone.getByRole('log')).toContainText(said);
};

test('two conversations of one person are put together and taken apart, and neither visitor sees it', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const desk = await visitorPhone(browser, porch);
  const pocket = await visitorPhone(browser, porch);
  for (let line = 1; line < 12; line += 1) await desk.say(`Line ${line} of my list`);
  await desk.say('Is my order packed?');
  await pocket.say('Me again, from my phone');
  await expect(phone.getByRole('button', { name: /^Waiting, 2/ })).toBeVisible();
  await openBy(phone, 'Me again, from my phone');

  const put = async () => {
    await phone.getByRole('button', { name: 'Who’s this' }).click();
    await phone.getByRole('button', { name: 'The same person as …' }).click();
    await phone.getByLabel('Who: a name, an email, words they wrote').fill('order');
    await phone.getByRole('button', { name: /Is my order packed/ }).click();
  };
  const roll = phone.getByRole('log');
  await put();
  await expect(phone.getByText(/^Put together with Visitor/)).toBeVisible();
  await expect(roll.getByText('Is my order packed?')).toBeVisible();
  // However much came in above it, the end is what one sees.
  await expect(roll.getByText(/Maren Oduya put this together/)).toBeInViewport({ ratio: 1 });

  await phone.getByRole('button', { name: 'Undo' }).click();
  await expect(roll.getByText('Is my order packed?')).toHaveCount(0);
  await expect(roll.getByText(/parted somebody else’s conversation/)).toBeVisible();

  // Put together once more, the answer goes to whoever wrote last, and to nobody else.
  await put();
  await expect(roll.getByText('Is my order packed?')).toBeVisible();
  await answer(phone, 'Packed and on its way');
  await expect(pocket.panel.getByText('Packed and on its way')).toBeVisible();
  await expect(desk.panel.getByText('Packed and on its way')).toHaveCount(0);
  await desk.say('Hello?');
  await expect(roll.getByText('Hello?')).toBeVisible();
  await answer(phone, 'It left at nine');
  await expect(desk.panel.getByText('It left at nine')).toBeVisible();
  await expect(pocket.panel.getByText('It left at nine')).toHaveCount(0);

  await phone.getByRole('button', { name: 'Who’s this' }).click();
  const part = phone.getByRole('button', { name: /^Part .*: this is somebody else/ });
  await expect(part).toHaveCount(2);
  await part.last().click();
  await phone.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await expect(phone.getByRole('button', { name: 'Answered, 2' })).toBeVisible();
});

test('whoever looks at a conversation that is put together elsewhere is led to where it stands now', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const one = await visitorPhone(browser, porch);
  const two = await visitorPhone(browser, porch);
  await one.say('The first of both');
  await two.say('The second of both');
  await openBy(phone, 'The first of both');
  const other = await phone.context().newPage();
  await other.goto(porch.origin);
  await openBy(other, 'The second of both');
  await other.getByRole('button', { name: 'Who’s this' }).click();
  await other.getByRole('button', { name: 'The same person as …' }).click();
  await other.getByLabel('Who: a name, an email, words they wrote').fill('first');
  await other.getByRole('button', { name: /The first of both/ }).click();
  await expect(phone.getByRole('log').getByText('The second of both')).toBeVisible();
  await expect(phone.getByRole('log').getByText('The first of both')).toBeVisible();
  expect(new URL(phone.url()).pathname).toBe(new URL(other.url()).pathname);
});
