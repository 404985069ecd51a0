import type { Page } from '@playwright/test';
import type { House } from '@porch/contract/house';
import type { Card } from '@porch/core/cards';
import { cardOf } from '@porch/core/test-kit/cards';
import { expectClean } from '../kit/clean';
import { expect, ownerPhone, ownServer, type Porch, test, visitorPhone } from '../kit/porch';

const card = (id: string, question: string, answer: string, change: Partial<Card> = {}): Card =>
  cardOf(id, { question, answer, ...change });

const cards = [
  card('card-delivery', 'Do you deliver?', 'Within ten miles, on Fridays.', {
    leads: { to: 'cards', ids: ['card-far-away'] },
  }),
  card('card-far-away', 'I live further away', 'Where would it be for?', {
    leads: { to: 'ask', asks: { field: 'own', label: 'Postcode' }, next: 'card-by-post' },
  }),
  card('card-by-post', 'How are plants packed?', 'Upright, in straw.'),
  card('card-opening', 'When are you open?', 'Every day from nine.'),
];

const offer = (porch: Porch, first = ['card-delivery', 'card-opening']): Promise<void> =>
  porch.dress((dress) => {
    dress.asked = {
      cards,
      first: first.map((id) => ({ id, states: ['lit', 'back-soon', 'dark'] })),
    };
  });

const turnDark = (porch: Porch): Promise<unknown> =>
  porch.ask('PUT', '/api/lamp', { state: 'dark', until: null });

/** Where a card was enough nobody waits. */
const openWrappedUp = async (screen: Page, porch: Porch, row: RegExp): Promise<void> => {
  await screen.goto(`${porch.origin}/line`);
  await screen.getByRole('button', { name: 'Wrapped up, 1' }).click();
  await screen.getByRole('link', { name: row }).click();
};

test('a card is tapped, leads on to a detail, and is enough', async ({ browser, porch }) => {
  await offer(porch);
  const { panel, page } = await visitorPhone(browser, porch);
  await panel.getByRole('button', { name: 'Do you deliver?' }).click();
  await expect(panel.getByText('Within ten miles, on Fridays.')).toBeVisible();
  await expectClean(page, 'after a card');
  await panel.getByRole('button', { name: 'I live further away' }).click();
  await panel.getByRole('textbox', { name: 'Postcode' }).fill('LK1 2AB');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByText('Upright, in straw.')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: /Write to us/ }).click();
  await expect(panel.getByText('Upright, in straw.')).toBeVisible();

  const screen = await ownerPhone(browser, porch);
  await openWrappedUp(screen, porch, /How are plants packed/);
  await expect(screen.getByRole('log')).toContainText('Within ten miles, on Fridays.');
  await expect(screen.getByRole('log')).toContainText('LK1 2AB');
  await screen.goto(`${porch.origin}/house/dress/${(await porch.door()).id}?part=asked`);
  await screen.getByRole('radio', { name: 'Asked often' }).click();
  await expect(
    screen.getByRole('button', { name: 'Change “How are plants packed?”' }),
  ).toContainText('Tapped once, and that was enough');
});

test('a card leads to a person, who is rung and answers', async ({ browser, porch }) => {
  await offer(porch);
  const screen = await ownerPhone(browser, porch);
  const { panel } = await visitorPhone(browser, porch);
  await panel.getByRole('button', { name: 'When are you open?' }).click();
  await expect(panel.getByText('Every day from nine.')).toBeVisible();
  await panel.getByRole('button', { name: 'A person, please' }).click();
  await screen.getByRole('link', { name: /A person, please/ }).click();
  await expect(screen.getByRole('log')).toContainText('Every day from nine.');
  await screen.getByRole('textbox', { name: 'Your answer' }).fill('Here I am.');
  await screen.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(panel.getByText('Here I am.')).toBeVisible();
});

test('whoever leaves a note is asked whether a card answers it', async ({ browser, porch }) => {
  await offer(porch);
  await turnDark(porch);
  const { panel, say } = await visitorPhone(browser, porch);
  await say('Would you deliver to Larkhope?');
  await expect(panel.getByRole('heading', { name: 'Is it one of these?' })).toBeVisible();
  const fitting = panel.getByRole('region', { name: 'Is it one of these?' });
  await expect(fitting.getByRole('button', { name: 'No, leave a note' })).toBeVisible();
  await fitting.getByRole('button', { name: 'Do you deliver?' }).click();
  await panel.getByRole('button', { name: 'That answers it' }).click();
  await expect(panel.getByText('Good to hear.')).toBeVisible();

  const screen = await ownerPhone(browser, porch);
  await openWrappedUp(screen, porch, /Do you deliver/);
  await expect(screen.getByRole('log')).toContainText(
    'They say that a card of what is asked often has answered it',
  );
});

test('a card passes it to somebody, and the roll says to whom', async ({ browser, porch }) => {
  const { team } = await porch.ask<House>('GET', '/api/house');
  await porch.dress((dress) => {
    const leads = { to: 'pass' as const, memberId: team[0]?.id ?? '' };
    dress.asked = {
      cards: [card('card-of-orders', 'Something about my order', 'Maren looks it up.', { leads })],
      first: [{ id: 'card-of-orders', states: ['lit'] }],
    };
  });
  const screen = await ownerPhone(browser, porch);
  const { panel } = await visitorPhone(browser, porch);
  await panel.getByRole('button', { name: 'Something about my order' }).click();
  await expect(panel.getByText('Maren looks it up.')).toBeVisible();
  await screen.getByRole('button', { name: 'Waiting, 1' }).waitFor();
  await screen.getByRole('link', { name: /Something about my order/ }).click();
  await expect(screen.getByRole('log')).toContainText('asked often, for Maren Oduya');
});

test(
  'a card that was tapped without signal is answered once there is some',
  ownServer,
  async ({ browser, porch }) => {
    await offer(porch);
    const { panel, context } = await visitorPhone(browser, porch);
    const button = panel.getByRole('button', { name: 'When are you open?' });
    await expect(button).toBeVisible();
    await context.setOffline(true);
    await porch.kill();
    await button.click();
    await expect(panel.getByText('Waiting to be sent')).toBeVisible();
    await porch.open(porch.server.port);
    await context.setOffline(false);
    await expect(panel.getByText('Every day from nine.')).toBeVisible();
    await expect(panel.getByText('Waiting to be sent')).toHaveCount(0);
  },
);

test('a question is written, tried in the preview, put in its place and published', async ({
  browser,
  porch,
}) => {
  await offer(porch);
  const screen = await ownerPhone(browser, porch, { viewport: { width: 1280, height: 800 } });
  await screen.goto(`${porch.origin}/house/dress/${(await porch.door()).id}`);
  await screen.getByRole('radio', { name: 'Asked often' }).click();
  await expectClean(screen, 'what is asked often');
  await screen.getByRole('button', { name: 'Add a question' }).click();
  await expect(screen.getByRole('button', { name: 'Publish', exact: true })).toBeDisabled();
  await screen.getByRole('textbox', { name: 'Question' }).fill('Is there parking?');
  await screen.getByRole('textbox', { name: 'Answer' }).fill('Six spaces in our yrad.');
  await screen.getByRole('button', { name: 'Write “yard”' }).click();
  await expect(screen.getByRole('textbox', { name: 'Answer' })).toHaveValue(
    'Six spaces in our yard.',
  );
  await expectClean(screen, 'a question that is written');
  const panel = screen
    .frameLocator('iframe[title="The door as visitors see it"]')
    .frameLocator('iframe');
  await expect(async () => {
    await panel.getByRole('button', { name: 'Is there parking?' }).click({ timeout: 2_000 });
    await expect(panel.getByText('Six spaces in our yard.')).toBeVisible({ timeout: 2_000 });
  }).toPass();

  await screen.getByRole('button', { name: 'All questions' }).click();
  const first = screen.getByRole('group', { name: 'Shown first' });
  const order = () => first.getByRole('button', { name: /^Change “/ }).allTextContents();
  const isFirst = async (question: string) =>
    expect.poll(async () => (await order())[0]).toContain(question);
  await first.getByRole('button', { name: '“Is there parking?” further up' }).click();
  await first.getByRole('button', { name: '“Is there parking?” further up' }).click();
  await isFirst('Is there parking?');
  // By keyboard alone: picked up, moved down, put there.
  await first.getByRole('button', { name: 'Move “Is there parking?”' }).focus();
  await screen.keyboard.press('Space');
  await expect(screen.getByText(/“Is there parking\?” is (picked up|at place 1)\./)).toBeAttached();
  await expect(async () => {
    await screen.keyboard.press('ArrowDown');
    await expect(screen.getByText(/“Is there parking\?” is at place [23]\./)).toBeAttached({
      timeout: 1_000,
    });
  }).toPass();
  await screen.keyboard.press('Space');
  await isFirst('Do you deliver?');
  // And drawn by its handle.
  const handle = first.getByRole('button', { name: 'Move “When are you open?”' });
  await handle.hover();
  await screen.mouse.down();
  const box = await first.boundingBox();
  await screen.mouse.move((box?.x ?? 0) + 20, (box?.y ?? 0) + 60, { steps: 4 });
  await screen.mouse.move((box?.x ?? 0) + 20, (box?.y ?? 0) + 4, { steps: 8 });
  await screen.mouse.up();
  await isFirst('When are you open?');

  await expect(screen.getByText('Draft saved')).toBeVisible();
  await screen.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(screen.getByText('Published. Visitors see it')).toBeVisible();
  const visitor = await visitorPhone(browser, porch);
  const often = visitor.panel.getByRole('list', { name: 'Asked often' });
  await expect(often.getByRole('button').first()).toHaveText('When are you open?');
  await expect(often.getByRole('button')).toHaveCount(3);
});
