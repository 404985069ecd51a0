import type { Page } from '@playwright/test';
import {
  expect,
  openPanel,
  ownerPhone,
  type Porch,
  test,
  visitorPhone,
  watched,
} from '../kit/porch';

const openDressing = async (screen: Page, porch: Porch): Promise<void> => {
  await screen.goto(`${porch.origin}/house/dress/${(await porch.door()).id}`);
  await expect(screen.getByRole('heading', { name: 'Dressing room' })).toBeVisible();
};
const wide = { viewport: { width: 1280, height: 800 } };

/** What the preview draws: the panel in the frame of the imaginary website. */
const previewOf = (screen: Page) => {
  const site = screen.frameLocator('iframe[title="The door as visitors see it"]');
  return { site, panel: site.frameLocator('iframe') };
};

test('the door is dressed with the real thing beside it, published, and taken back', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch, wide);
  const visitor = await watched(await browser.newContext());
  await openDressing(screen, porch);
  const { panel } = previewOf(screen);
  await expect(panel.getByRole('heading', { name: 'Quillfern Nursery' })).toBeVisible();

  await screen.getByRole('textbox', { name: 'Ground', exact: true }).fill('sky');
  await expect(screen.getByRole('alert')).toContainText('This is no colour');
  await expect(screen.getByRole('button', { name: 'Publish', exact: true })).toBeDisabled();
  await screen.getByRole('textbox', { name: 'Ground', exact: true }).fill('#123');
  await expect(screen.getByText(/Text \d+\.\d : 1/)).toBeVisible();
  await screen.getByRole('radio', { name: 'Lintel' }).click();
  await screen.getByRole('radio', { name: 'Left' }).click();
  await screen.getByRole('radio', { name: 'Texts' }).click();
  await screen.getByRole('textbox', { name: 'Heading', exact: true }).fill('The bench is open');
  await expect(panel.getByRole('status').first()).toHaveText('The bench is open');
  const closed = screen.frameLocator('iframe[title="The closed door as visitors see it"]');
  await expect(closed.getByRole('button', { name: /\. Write to us/ })).toBeVisible();
  await expect(screen.getByText('Draft saved')).toBeVisible();

  await visitor.goto(porch.site);
  const seen = async () => {
    const { panel: real } = await openPanel(visitor);
    return real.getByRole('status').first();
  };
  await expect(await seen()).toHaveText('Answering now');
  await screen.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(screen.getByText('Published. Visitors see it')).toBeVisible();
  await visitor.context().clearCookies();
  const second = await watched(await browser.newContext());
  await second.goto(porch.site);
  const { panel: dressed } = await openPanel(second);
  await expect(dressed.getByRole('status').first()).toHaveText('The bench is open');
  const box = await second.locator('iframe').boundingBox();
  expect(box?.x).toBe(0);

  await screen.getByRole('button', { name: 'Undo publishing' }).click();
  await expect(screen.getByText('Visitors see what they saw before')).toBeVisible();
  const third = await watched(await browser.newContext());
  await third.goto(porch.site);
  const { panel: plain } = await openPanel(third);
  await expect(plain.getByRole('status').first()).toHaveText('Answering now');
});

test('who types a text goes on typing while the door beside it is drawn anew', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch, wide);
  await openDressing(screen, porch);
  const { panel } = previewOf(screen);
  await screen.getByRole('radio', { name: 'Texts' }).click();
  const heading = screen.getByRole('textbox', { name: 'Heading', exact: true });
  await heading.click();
  for (const soFar of ['The', 'The bench', 'The bench is open']) {
    await screen.keyboard.type(soFar.slice((await heading.inputValue()).length));
    await expect(panel.getByRole('status').first()).toHaveText(soFar);
    await expect(panel.getByRole('textbox', { name: 'Your message' })).toBeVisible();
    await expect(heading).toBeFocused();
  }
  await expect(heading).toHaveValue('The bench is open');
});

test('a draft is tried on the website by the owner alone', async ({ browser, porch }) => {
  const screen = await ownerPhone(browser, porch, wide);
  const visitor = await watched(await browser.newContext());
  await visitor.goto(porch.site);
  await expect(visitor.getByRole('button', { name: /\. Write to us/ })).toBeVisible();
  await porch.pass(1_000);
  await openDressing(screen, porch);
  await screen.getByRole('radio', { name: 'Texts' }).click();
  await screen.getByRole('textbox', { name: 'On the closed door' }).fill('Come to the bench');
  await expect(screen.getByText('Draft saved')).toBeVisible();
  const opening = screen.context().waitForEvent('page');
  await screen.getByRole('button', { name: 'Try it on my site' }).click();
  const trial = await opening;
  await expect(trial.getByRole('button', { name: /Come to the bench/ })).toBeVisible();
  expect(trial.url()).not.toContain('trial');
  await trial.goto(`${porch.site}/delivery`);
  await expect(trial.getByRole('button', { name: /Come to the bench/ })).toBeVisible();
  const { panel, say } = await openPanel(trial);
  await say('A trial, for real');
  await expect(panel.getByText('Sent').or(panel.getByText('Arrived'))).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByRole('button', { name: /Answering now/ })).toBeVisible();
});

test('two owners dress the same door: the second is told, and neither loses anything', async ({
  browser,
  porch,
}) => {
  const one = await ownerPhone(browser, porch, wide);
  const other = await ownerPhone(browser, porch, wide);
  await openDressing(one, porch);
  await openDressing(other, porch);
  const bottom = (screen: Page) =>
    screen.getByRole('textbox', { name: 'From the bottom, in pixels' });
  await one.getByRole('radio', { name: 'Latch' }).click();
  await bottom(one).fill('60');
  await expect(one.getByText('Draft saved')).toBeVisible();
  // Both before anything of it is saved, however slow the machine.
  await other.context().setOffline(true);
  await other.getByRole('radiogroup', { name: 'Size of text' }).getByText('Large').click();
  await bottom(other).fill('40');
  await expect(other.getByText('It is kept on this device')).toBeVisible();
  await other.context().setOffline(false);
  const note = other.getByRole('alert').filter({ hasText: 'changed this door meanwhile' });
  await expect(note).toContainText('Shape of the closed door');
  await expect(bottom(other)).toHaveValue('40');
  await note.getByRole('button', { name: 'Theirs: 60' }).click();
  await expect(bottom(other)).toHaveValue('60');
  await expect(
    other.getByRole('radiogroup', { name: 'Size of text' }).getByRole('radio', { name: 'Large' }),
  ).toBeChecked();
  await expect(other.getByRole('radio', { name: 'Latch' })).toBeChecked();
  await expect(other.getByText('Draft saved')).toBeVisible();
});

test('work without signal, and over a reload, is saved when there is some', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await openDressing(screen, porch);
  await screen.context().setOffline(true);
  await screen.getByRole('radio', { name: 'Left' }).click();
  await expect(screen.getByText('It is kept on this device')).toBeVisible();
  await screen.context().setOffline(false);
  await screen.reload();
  await expect(screen.getByRole('radio', { name: 'Left' })).toBeChecked();
  await expect(screen.getByText('Draft saved')).toBeVisible();
});

test('opened without signal, the dressing room comes by itself once there is some', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await openDressing(screen, porch);
  await screen.getByRole('button', { name: /Quillfern Nursery/ }).click();
  const dress = screen.getByRole('button', { name: 'Dress this door' });
  await expect(dress).toBeVisible();
  await screen.context().setOffline(true);
  await dress.click();
  await expect(screen.getByRole('button', { name: 'Try again' })).toBeVisible();
  await screen.context().setOffline(false);
  await expect(screen.getByRole('heading', { name: 'Dressing room' })).toBeVisible();
});

test('a text that would embarrass is not saved: too long, or with a gap that nothing fills', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await openDressing(screen, porch);
  await screen.getByRole('radio', { name: 'Texts' }).click();
  const sign = screen.getByRole('textbox', { name: 'Under the heading' });
  await sign.fill('x'.repeat(5_000));
  await expect(screen.getByRole('alert')).toContainText('Longer than 400 characters');
  await sign.fill('Hello {NAME}');
  await expect(screen.getByRole('alert')).toContainText('a gap in { } that nothing fills');
  await sign.fill('Hello');
  await expect(screen.getByText('Draft saved')).toBeVisible();
});

test('what visitors read while nobody is in is read over once, and the checklist knows', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await screen.getByRole('link', { name: 'House', exact: true }).click();
  await screen.getByRole('button', { name: 'Read it' }).click();
  await expect(screen.getByRole('radio', { name: 'Dark' })).toBeChecked();
  await screen.getByRole('button', { name: 'I have read this over' }).click();
  await expect(screen.getByText('Read over', { exact: true })).toBeVisible();
});

test('another door has its own snippet, language and code', async ({ browser, porch }) => {
  const screen = await ownerPhone(browser, porch);
  await screen.getByRole('link', { name: 'House', exact: true }).click();
  await screen.getByRole('button', { name: 'Add a door' }).click();
  await screen.getByRole('button', { name: /^A website,/ }).click();
  await screen.getByLabel('Name of the door').fill('Auf Deutsch');
  await screen.getByLabel('Its first language').selectOption('de');
  await screen.getByRole('button', { name: 'Add it' }).click();
  await expect(screen.getByRole('heading', { name: 'Auf Deutsch' })).toBeVisible();
  await screen.getByRole('radio', { name: 'A link or button' }).click();
  const link = await screen.getByText(/\/talk\//).innerText();
  await expect(screen.getByRole('img', { name: 'Code that leads to this door' })).toBeVisible();
  const downloading = screen.waitForEvent('download');
  await screen.getByRole('link', { name: 'Download as PNG' }).click();
  expect((await downloading).suggestedFilename()).toMatch(/^door-.*\.png$/);
  const visitor = await watched(await browser.newContext({ locale: 'sv-SE' }));
  await visitor.goto(link);
  await expect(visitor.getByRole('textbox', { name: 'Ihre Nachricht' })).toBeVisible();
  await screen.getByRole('button', { name: 'Close this door' }).click();
  await expect(screen.getByText('This door is closed.')).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByText('An dieser Tür antwortet niemand mehr.')).toBeVisible();
});

test('what visitors read is looked through, and a first hello is tried, switched on and said once', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch, wide);
  await openDressing(screen, porch);
  const { panel } = previewOf(screen);
  await screen.getByRole('radio', { name: 'Texts' }).click();
  const heading = screen.getByRole('textbox', { name: 'Heading', exact: true });
  // Gaps of a door's texts are the dressing room's to check, and none is offered that it would refuse.
  await heading.fill('Hello NAME {time}');
  await expect(screen.getByText('“NAME” looks like a gap that was left')).toBeVisible();
  await expect(screen.getByRole('button', { name: /^Ask for it/ })).toHaveCount(0);
  await expect(screen.getByText(/There is no gap called/)).toHaveCount(0);
  await heading.fill('We recieve you until {time} at Larkhope');
  await screen.getByRole('button', { name: 'Write “receive”' }).click();
  await expect(heading).toHaveValue('We receive you until {time} at Larkhope');
  await heading.fill('The bench is open');
  await expect(screen.getByText('Nothing to correct.')).toBeVisible();

  await screen.getByRole('radio', { name: 'Guest book' }).click();
  await screen.getByRole('switch', { name: /^Say a first hello/ }).click();
  await expect(screen.getByText('At any time, as long as the light is lit.')).toBeVisible();
  const hello = 'Thank you, we have it. Somebody reads it now and answers here.';
  // Whatever is changed draws the panel anew, and what was typed into it is gone.
  await expect(async () => {
    await panel.getByRole('textbox', { name: 'Your message' }).fill('Do you have ferns?');
    await panel.getByRole('button', { name: 'Send' }).click({ timeout: 2_000 });
    await expect(panel.getByText(hello)).toBeVisible({ timeout: 2_000 });
  }).toPass();

  await expect(screen.getByText('Draft saved')).toBeVisible();
  await screen.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(screen.getByText('Published. Visitors see it')).toBeVisible();
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Do you have ferns?');
  await expect(visitor.panel.getByText(hello)).toHaveCount(1);
  await visitor.say('Two of them');
  const second = visitor.panel.getByRole('listitem').filter({ hasText: 'Two of them' });
  await expect(second.getByText(/^(Sent|Arrived)$/)).toBeVisible();
  await screen.goto(`${porch.origin}/line`);
  await screen.getByRole('link', { name: /Two of them/ }).click();
  await expect(screen.getByRole('log')).toContainText(`The door said: “${hello}”`);
  await expect(visitor.panel.getByText(hello)).toHaveCount(1);
});
