import type { Page } from '@playwright/test';
import { newGreeting } from '@porch/core/greetings';
import { expectClean } from '../kit/clean';
import { expect, openVisitor, ownerPhone, type Porch, test, watched } from '../kit/porch';

const greets = async (porch: Porch): Promise<void> => {
  const { team } = await porch.ask<{ team: { id: string }[] }>('GET', '/api/house');
  await porch.dress((dress) => {
    dress.greetings = [
      {
        ...newGreeting('greeting-0001', 'en'),
        text: 'Morning. Which fern are you after?',
        memberId: team[0]?.id ?? null,
        afterSeconds: 0,
      },
    ];
  });
};

const theGreeting = (page: Page) =>
  page.getByRole('button', { name: /^Maren.* Morning\. Which fern are you after\?/ });

const panelOf = (page: Page) =>
  page.frameLocator('iframe[title="Conversation with Quillfern Nursery"]');

test('a greeting is written, tried on the website before it is on, and published', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch, { viewport: { width: 1280, height: 800 } });
  const visitor = await watched(await browser.newContext());
  await visitor.goto(porch.site);
  await porch.pass(1_000);
  await screen.goto(`${porch.origin}/house/dress/${(await porch.door()).id}`);
  await screen.getByRole('radio', { name: 'Greetings' }).click();
  await screen.getByRole('button', { name: 'Add a greeting' }).click();
  await expect(screen.getByRole('button', { name: 'Try this one on your website' })).toBeDisabled();
  const text = screen.getByRole('textbox', { name: 'What is said' });
  await text.fill('Morning. Whihc fern are you after?');
  await screen.getByRole('button', { name: 'Write “Which”' }).click();
  await expect(text).toHaveValue('Morning. Which fern are you after?');
  await screen.getByRole('combobox', { name: 'In whose name' }).selectOption('Maren Oduya');
  await screen.getByRole('textbox', { name: 'On these pages' }).fill('/delivery');
  await screen.getByRole('textbox', { name: 'After seconds on the page' }).fill('1');
  await screen.getByRole('textbox', { name: 'From which visit on' }).fill('7');
  await screen.getByRole('switch', { name: 'It is said' }).click();
  const preview = screen.frameLocator('iframe[title^="The closed door"]');
  await expect(preview.getByText('Morning. Which fern are you after?')).toBeVisible();
  await expectClean(screen, 'a greeting that is written');

  const opening = screen.context().waitForEvent('page');
  await screen.getByRole('button', { name: 'Try this one on your website' }).click();
  const trial = await opening;
  await expect(trial.getByRole('button', { name: /Write to us/ })).toBeVisible();
  await expect(theGreeting(trial)).toHaveCount(0);
  await trial.goto(`${porch.site}/delivery`);
  await theGreeting(trial).click();
  await expect(panelOf(trial).getByText('Morning. Which fern are you after?')).toBeVisible();
  await visitor.goto(`${porch.site}/delivery`);
  await expect(visitor.getByRole('button', { name: /Write to us/ })).toBeVisible();

  await screen.getByRole('textbox', { name: 'From which visit on' }).fill('1');
  await screen.getByRole('switch', { name: 'It is said' }).click();
  await expect(screen.getByText('Draft saved')).toBeVisible();
  await screen.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(screen.getByText('Published. Visitors see it')).toBeVisible();
  await screen.getByRole('button', { name: 'All greetings' }).click();
  await expect(screen.getByText('Not seen yet')).toBeVisible();
  await expect(screen.getByText('1 page · after 1 s')).toBeVisible();
  await expectClean(screen, 'all greetings');
  const other = await watched(await browser.newContext());
  await other.goto(`${porch.site}/delivery`);
  await expect(theGreeting(other)).toBeVisible();
});

test('whoever is greeted answers, and it stands on the roll before what they said', async ({
  browser,
  porch,
}) => {
  await greets(porch);
  const page = await watched(await browser.newContext());
  await page.goto(porch.site);
  await expect(theGreeting(page)).toBeVisible();
  await expectClean(page, 'a page with a greeting');
  // Once a visit: on the next page the panel still knows with what they were greeted.
  await page.goto(`${porch.site}/delivery`);
  await page.getByRole('button', { name: /^Quillfern Nursery .*Write to us/ }).click();
  const panel = panelOf(page);
  const roll = panel.getByRole('list', { name: 'Conversation' });
  await expect(roll.getByRole('listitem')).toContainText(['Morning. Which fern are you after?']);
  await panel.getByRole('textbox', { name: 'Your message' }).fill('A Boston fern');
  await panel.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(panel.getByText('Sent').or(panel.getByText('Arrived'))).toBeVisible();
  await expect(panel.getByText('Morning. Which fern are you after?')).toHaveCount(1);

  const phone = await ownerPhone(browser, porch);
  await openVisitor(phone, 'A Boston fern');
  await expect(phone.getByRole('log')).toContainText(
    'Greeted in the name of Maren Oduya: “Morning. Which fern are you after?”',
  );
  await phone.goto(`${porch.origin}/house/dress/${(await porch.door()).id}?part=greetings`);
  await expect(phone.getByText('Seen once, answered 1')).toBeVisible();

  // Whoever has written is greeted no more.
  await page.goto(porch.site);
  await expect(page.getByRole('button', { name: /Write to us/ })).toBeVisible();
  await expect(page.locator('iframe')).toBeAttached();
  await expect(theGreeting(page)).toHaveCount(0);
});

test('a greeting waits for the light, and can be put away by keyboard', async ({
  browser,
  porch,
}) => {
  await greets(porch);
  await porch.ask('PUT', '/api/lamp', { state: 'dark', until: null });
  const page = await watched(await browser.newContext());
  await page.goto(porch.site);
  await expect(page.getByRole('button', { name: /Leave a note/ })).toBeVisible();
  await expect(theGreeting(page)).toHaveCount(0);
  await porch.ask('PUT', '/api/lamp', { state: 'lit', until: null });
  await expect(theGreeting(page)).toBeVisible();
  await page.getByRole('button', { name: 'Hide this line' }).focus();
  await page.keyboard.press('Enter');
  await expect(theGreeting(page)).toHaveCount(0);
  await expect(page.getByRole('button', { name: /Write to us/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(panelOf(page).getByRole('textbox', { name: 'Your message' })).toBeVisible();
  await expect(panelOf(page).getByText('Which fern are you after?')).toHaveCount(0);
});
