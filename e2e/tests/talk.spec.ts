import type { Browser, Page } from '@playwright/test';
import type { LinePage } from '@porch/contract/line';
import { expectClean } from '../kit/clean';
import {
  answer,
  expect,
  openPanel,
  openVisitor,
  ownerPhone,
  type Porch,
  someDay,
  test,
  visitorPhone,
  watched,
} from '../kit/porch';

test('a visitor writes on the website, the owner answers on the phone, and the visitor reads it', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say, page } = await visitorPhone(browser, porch, '/monstera-deliciosa');
  await say('Is the monstera still there?');
  const mine = panel.getByRole('listitem').filter({ hasText: 'Is the monstera still there?' });
  await expect(mine).toContainText('Arrived');

  const row = phone.getByRole('link', { name: /Visitor.*, .* left, 1 unread, on the page now/ });
  await expect(row).toContainText('Is the monstera still there?');
  await expect(phone).toHaveTitle(/^\(1\) Quillfern Nursery/);
  await row.click();
  await expect(mine).toContainText('Read');

  await expect(phone.getByRole('status').filter({ hasText: 'their screen' })).toBeVisible();
  const answer = phone.getByRole('textbox', { name: 'Your answer' });
  await answer.pressSequentially('It is.');
  await expect(panel.getByText('Maren Oduya is typing')).toBeVisible();
  await phone.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(panel.getByRole('listitem').filter({ hasText: 'It is.' })).toContainText(
    'Maren Oduya',
  );
  await expect(phone.getByRole('log')).toContainText('Read');

  await page.goto(`${porch.site}/delivery`);
  const again = await openPanel(page);
  await expect(again.panel.getByRole('list', { name: 'Conversation' })).toContainText('It is.');
  await expect(phone.getByRole('log')).toContainText('Delivery');
});

test('the visitor is asked lightly who writes, and what they say stands beside the conversation', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say, sayWho } = await visitorPhone(browser, porch);
  await say('Hello');
  await sayWho();
  await panel.getByLabel('Email').fill('not an email');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByRole('alert')).toContainText('does not look like an email');
  await panel.getByLabel('Name').fill('Wren Ashdown');
  await panel.getByLabel('Email').fill('wren@post.example');
  await panel.getByRole('button', { name: 'Save' }).click();
  // No mail goes out of this house: nothing is promised by it.
  await expect(panel.getByText(/^Thank you/)).toBeVisible();
  await phone.getByRole('link', { name: /^Wren Ashdown/ }).click();
  await phone.getByRole('button', { name: 'Who’s this' }).click();
  await expect(phone.getByRole('link', { name: 'wren@post.example' })).toHaveAttribute(
    'href',
    'mailto:wren@post.example',
  );
});

test('a link leads to the same panel on a page of our own, and comes back to the same conversation', async ({
  browser,
  porch,
}) => {
  const { link } = await porch.door();
  const page = await watched(await browser.newContext());
  await page.goto(link);
  await page.getByRole('textbox', { name: 'Your message' }).fill('By the link');
  await page.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'By the link' })).toContainText('Sent');
  await page.reload();
  await expect(page.getByRole('listitem').filter({ hasText: 'By the link' })).toHaveCount(1);
});

test('two tabs that were open before the first word are one conversation, and both show it', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { link } = await porch.door();
  const visitor = await browser.newContext();
  const tabs = [await watched(visitor), await watched(visitor)] as const;
  for (const tab of tabs) {
    await tab.goto(link);
    await expect(tab.getByRole('textbox', { name: 'Your message' })).toBeVisible();
  }
  const say = async (tab: Page, text: string): Promise<void> => {
    await tab.getByRole('textbox', { name: 'Your message' }).fill(text);
    await tab.getByRole('button', { name: 'Send' }).click();
  };
  await say(tabs[0], 'From the first tab');
  await expect(tabs[1].getByText('From the first tab')).toBeVisible();
  await say(tabs[1], 'From the second tab');
  for (const tab of tabs) await expect(tab.getByText('From the second tab')).toBeVisible();
  await tabs[0].reload();
  for (const text of ['From the first tab', 'From the second tab']) {
    await expect(tabs[0].getByText(text)).toBeVisible();
  }
  await expect(phone.getByRole('link', { name: /From the second tab$/ })).toHaveCount(1);
  await expect(phone.getByRole('link', { name: /From the first tab$/ })).toHaveCount(0);
});

test('wrapping up, undoing, putting by and coming back by itself', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  const group = (name: string) => phone.getByRole('button', { name: new RegExp(`^${name}, `) });
  await expect(group('Waiting')).toHaveAccessibleName('Waiting, 1');

  await phone.getByRole('link', { name: /^Visitor/ }).click();
  await phone.getByRole('button', { name: 'Wrap up' }).click();
  await expect(group('Wrapped up')).toHaveAccessibleName('Wrapped up, 1');
  await phone.getByRole('button', { name: 'Undo' }).click();
  await expect(group('Waiting')).toHaveAccessibleName('Waiting, 1');

  await phone.getByRole('link', { name: /^Visitor/ }).click();
  await phone.getByRole('button', { name: 'Put by' }).click();
  await phone.getByRole('button', { name: 'In an hour' }).click();
  await expect(group('Put by')).toHaveAccessibleName('Put by, 1');
  await porch.pass(61 * 60_000);
  await expect(phone.getByRole('link', { name: /came back/ })).toBeVisible();

  await phone.getByRole('link', { name: /came back/ }).click();
  await phone.getByRole('button', { name: 'Wrap up' }).click();
  await expect(group('Waiting')).toHaveAccessibleName('Waiting, 0');
  await say('One more thing');
  await expect(group('Waiting')).toHaveAccessibleName('Waiting, 1');
});

test('it is put by until a moment of one’s own, written or picked', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  const open = async () => {
    await phone.getByRole('link', { name: /^Visitor/ }).click();
    await phone.getByRole('button', { name: 'Put by' }).click();
    return phone.getByRole('dialog');
  };
  const until = phone.getByText(/^Put by until/);

  const sheet = await open();
  const written = sheet.getByLabel('Or write it');
  await written.fill('yesterday noon');
  await sheet.getByRole('button', { name: 'Put by' }).click();
  await expect(sheet.getByRole('alert')).toContainText('no day and time to come');
  await written.fill('in 3 days 10:30');
  await expect(sheet.getByRole('alert')).toHaveCount(0);
  await sheet.getByRole('button', { name: 'Put by' }).click();
  await expect(until).toContainText('10:30');
  await phone.getByRole('button', { name: 'Undo' }).click();

  const again = await open();
  await again.getByLabel('Or write it').fill('tomorrow 8');
  await again.getByLabel('Time', { exact: true }).fill('14:45');
  // What was said last counts.
  await expect(again.getByLabel('Or write it')).toHaveValue('');
  await again.getByRole('button', { name: 'Put by' }).click();
  await expect(until).toContainText('14:45');
});

/** Another window is before this one, or the phone was put away. */
const hide = (page: Page, isHidden: boolean) =>
  page.evaluate((hidden) => {
    Object.defineProperty(document, 'visibilityState', {
      configurable: true,
      get: () => (hidden ? 'hidden' : 'visible'),
    });
    document.dispatchEvent(new Event('visibilitychange'));
  }, isHidden);

test('nobody is told that something was read which was on no screen in sight', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { page, panel, say } = await visitorPhone(browser, porch);
  await say('Hello');
  await openVisitor(phone, 'Hello');
  await expect(panel.getByText('Read', { exact: true })).toBeVisible();
  await hide(phone, true);
  await say('While nobody looks');
  await expect(phone.getByRole('log')).toContainText('While nobody looks');
  await expect(panel.getByText('Arrived', { exact: true })).toBeVisible();
  await hide(phone, false);
  await expect(panel.getByText('Arrived', { exact: true })).toBeHidden();
  await expect(panel.getByText('Read', { exact: true })).toHaveCount(2);

  // The same on the other side.
  const frame = page.frames().find((one) => one.url().includes('/panel'));
  await frame?.evaluate(() => {
    Object.defineProperty(document, 'visibilityState', { configurable: true, get: () => 'hidden' });
  });
  await answer(phone, 'Are you there?');
  await expect(panel.getByText('Are you there?')).toBeVisible();
  await expect(phone.getByText('Arrived', { exact: true })).toBeVisible();
  await expect(phone.getByRole('log').getByText('Read', { exact: true })).toHaveCount(0);
  await frame?.evaluate(() => {
    Object.defineProperty(document, 'visibilityState', {
      configurable: true,
      get: () => 'visible',
    });
    document.dispatchEvent(new Event('visibilitychange'));
  });
  await expect(phone.getByRole('log').getByText('Read', { exact: true })).toBeVisible();
});

test('two phones and a wide screen show the same without a reload', async ({ browser, porch }) => {
  const first = await ownerPhone(browser, porch);
  const second = await ownerPhone(browser, porch);
  const wide = await ownerPhone(browser, porch, { viewport: { width: 1280, height: 800 } });
  const { say } = await visitorPhone(browser, porch);
  await say('Everybody sees this');
  for (const screen of [first, second, wide]) {
    await expect(screen.getByRole('link', { name: /Everybody sees this/ })).toBeVisible();
  }
  await first.getByRole('link', { name: /Everybody sees this/ }).click();
  await answer(first, 'And this');
  for (const screen of [second, wide]) {
    await expect(screen.getByRole('link', { name: /You: And this/ })).toBeVisible();
    await expect(screen.getByRole('button', { name: 'Answered, 1' })).toBeVisible();
  }
});

test('a row that is pressed long is selected, and one drawn aside shows what can be done with it', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  const row = phone.getByRole('link', { name: /^Visitor/ });
  await row.click({ delay: 900 });
  await expect(phone.getByRole('checkbox', { name: /^Visitor/ })).toBeChecked();
  await phone.getByRole('button', { name: 'Wrap up', exact: true }).click();
  await expect(phone.getByRole('button', { name: 'Wrapped up, 1' })).toBeVisible();
  await phone.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toBeVisible();
  const box = await row.boundingBox();
  if (!box) throw new Error('the row has no place');
  const middle = box.y + box.height / 2;
  await phone.mouse.move(300, middle);
  await phone.mouse.down();
  await phone.mouse.move(200, middle, { steps: 8 });
  await phone.mouse.up();
  await expect(phone.getByRole('button', { name: 'Put by', exact: true })).toBeVisible();
});

/** So many visitors, each with a conversation that was answered. */
const answeredConversations = async (browser: Browser, porch: Porch, count: number) => {
  for (let at = 1; at <= count; at += 1) {
    const { say, page } = await visitorPhone(browser, porch);
    await say(`Question ${at}`);
    const line = await porch.ask<LinePage>('GET', '/api/line?view=all&group=waiting');
    const [row] = line.rows;
    await porch.ask('POST', `/api/conversations/${row?.id}/deeds`, {
      ...{ id: `deed-of-a-test-${at}`, do: 'say', text: `Answer ${at}` },
      ...{ fileIds: [], threadId: row?.threads[0]?.id },
    });
    await page.close();
  }
};

test('what is done with one is done with many at once, and undone at once', async ({
  browser,
  porch,
}) => {
  await answeredConversations(browser, porch, 3);
  const phone = await ownerPhone(browser, porch);
  const group = (name: string) => phone.getByRole('button', { name: new RegExp(`^${name}, \\d`) });
  await expect(group('Answered')).toHaveAccessibleName('Answered, 3');
  await phone.getByRole('link', { name: /Answer 1/ }).click({ delay: 900 });
  await phone.getByRole('button', { name: 'Select all: Answered' }).click();
  await expect(phone.getByText('3 selected')).toBeVisible();
  await expectClean(phone, 'several selected');
  await phone.getByRole('button', { name: 'Wrap up', exact: true }).click();
  await expect(group('Wrapped up')).toHaveAccessibleName('Wrapped up, 3');
  await expect(phone.getByRole('checkbox')).toHaveCount(0);
  await phone.getByText('3 wrapped up').waitFor();
  await phone.getByRole('button', { name: 'Undo' }).click();
  await expect(group('Answered')).toHaveAccessibleName('Answered, 3');

  // By keyboard: from the row that it is at, all of its group, and put by.
  await phone.getByRole('link', { name: /Answer 2/ }).focus();
  await phone.keyboard.press('x');
  await expect(phone.getByText('1 selected')).toBeVisible();
  await expect(phone.getByRole('checkbox', { name: /Answer 2/ })).toBeFocused();
  await phone.keyboard.press('Space');
  await expect(phone.getByRole('link', { name: /Answer 2/ })).toBeFocused();
  await phone.keyboard.press('x');
  await phone.keyboard.press('a');
  await expect(phone.getByText('3 selected')).toBeVisible();
  await phone.keyboard.press('b');
  await phone.getByRole('button', { name: 'In an hour' }).click();
  await expect(group('Put by')).toHaveAccessibleName('Put by, 3');
  await porch.pass(61 * 60_000);
  await expect(group('Put by')).toHaveAccessibleName('Put by, 0');
});

test('somebody who writes meanwhile is not wrapped up with those who were answered', async ({
  browser,
  porch,
}) => {
  await answeredConversations(browser, porch, 2);
  const { say } = await visitorPhone(browser, porch);
  const phone = await ownerPhone(browser, porch);
  await say('Question 3');
  await phone.getByRole('link', { name: /Question 3/ }).click();
  await answer(phone, 'Answer 3');
  await phone.goto(`${porch.origin}/line`);
  await phone.getByRole('link', { name: /Answer 1/ }).click({ delay: 900 });
  await phone.getByRole('button', { name: 'Select all: Answered' }).click();
  await expect(phone.getByText('3 selected')).toBeVisible();
  await say('One more thing');
  await expect(phone.getByText('2 selected')).toBeVisible();
  await phone.getByRole('button', { name: 'Wrap up', exact: true }).click();
  await expect(phone.getByRole('button', { name: 'Wrapped up, 2' })).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Waiting, 1' })).toBeVisible();
});

for (const light of ['lit', 'back-soon', 'dark'] as const) {
  test(`the conversation has the room in the panel once something was said, ${light}`, async ({
    browser,
    porch,
  }) => {
    const until = light === 'back-soon' ? someDay + 2 * 3_600_000 : null;
    if (light !== 'lit') await porch.ask('PUT', '/api/lamp', { state: light, until });
    const phone = await ownerPhone(browser, porch);
    const context = await browser.newContext({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
    });
    const page = await watched(context);
    await page.goto(`${porch.origin}/talk/${(await porch.door()).publicId}`);
    const field = page.getByRole('textbox', { name: /^Your (message|note)$/ });
    await field.fill('Do you have a fern for a dark hall?');
    await page.getByRole('button', { name: /^(Send|Leave note)$/ }).click();
    await openVisitor(phone, 'Do you have a fern for a dark hall?');
    await answer(phone, 'The bird’s nest fern likes it dark. Shall I keep one for you?');
    const newest = page.getByRole('log').getByText('Shall I keep one for you?');
    await expect(newest).toBeInViewport();
    const share = (): Promise<number> =>
      page
        .getByRole('log')
        .evaluate((log) => (log.parentElement?.getBoundingClientRect().height ?? 0) / innerHeight);
    expect(await share()).toBeGreaterThanOrEqual(0.7);
    await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);
    // With a keyboard on the screen what was said last is still there to be read.
    await field.focus();
    await page.setViewportSize({ width: 390, height: 500 });
    await expect(newest).toBeInViewport({ ratio: 1 });
    expect(await share()).toBeGreaterThanOrEqual(0.5);
  });
}

for (const isByItself of [true, false]) {
  const how = isByItself ? 'by the browser itself' : 'where the browser does not do so itself';
  test(`a long answer grows its field, and a shortened one shrinks it, ${how}`, async ({
    browser,
    porch,
  }) => {
    const phone = await ownerPhone(browser, porch);
    if (!isByItself) {
      await phone.addInitScript(() => {
        const supports = CSS.supports.bind(CSS) as (name: string, value?: string) => boolean;
        CSS.supports = ((name: string, value?: string) =>
          name !== 'field-sizing' && supports(name, value)) as typeof CSS.supports;
      });
      await phone.reload();
    }
    const { say } = await visitorPhone(browser, porch);
    await say('Tell me everything');
    await phone.getByRole('link', { name: /Tell me everything/ }).click();
    const field = phone.getByRole('textbox', { name: 'Your answer' });
    const height = async (): Promise<number> => (await field.boundingBox())?.height ?? 0;
    await field.fill('One line');
    const one = await height();
    await field.fill(Array.from({ length: 30 }, (_, line) => `Line ${line}`).join('\n'));
    const most = await height();
    expect(most).toBeGreaterThan(one * 2);
    for (const [text, least, mostNow] of [
      ['One\nTwo\nThree', one + 1, most - 1],
      ['One line', one, one],
      ['word '.repeat(300), most, most],
      ['', one, one],
    ] as const) {
      await field.fill(text);
      expect(await height()).toBeGreaterThanOrEqual(least);
      expect(await height()).toBeLessThanOrEqual(mostNow);
    }
    await expect(field).toBeVisible();
  });
}

for (const width of [900, 1280]) {
  test(`the conversation has the most room on a screen ${width} wide`, async ({
    browser,
    porch,
  }) => {
    const screen = await ownerPhone(browser, porch, { viewport: { width, height: 800 } });
    const { say } = await visitorPhone(browser, porch);
    await say('Is there room?');
    await screen.getByRole('link', { name: /Is there room/ }).click();
    const conversation = screen.getByRole('log', { name: 'What was said' });
    const beside = screen.getByRole('complementary', { name: 'Who’s this' });
    await expect(beside).toBeVisible();
    const room = (await conversation.boundingBox())?.width ?? 0;
    const other = (await beside.boundingBox())?.width ?? width;
    const line = width - room - other;
    expect(room).toBeGreaterThan(Math.max(line, other));
  });
}

test('a row opens though nothing more of the app comes: its part was loaded while the line stood idle', async ({
  browser,
  porch,
}) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Is the bench open?');
  const phone = await ownerPhone(browser, porch);
  // Its place and what stands there.
  const parts = [/\/(\[|%5B)id(\]|%5D)-/, /all-of-answering/].map((part) =>
    phone.waitForResponse(part),
  );
  await phone.goto(`${porch.origin}/line`);
  for (const part of await Promise.all(parts)) await part.finished();
  await phone.route('**/*.js', (route) => route.abort());
  await phone.getByRole('link', { name: /Is the bench open/ }).click();
  await expect(phone.getByRole('textbox', { name: 'Your answer' })).toBeVisible();
});

test('on a phone the field of an answer has the width beside Send, and Escape leaves what is open above it alone', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch, { viewport: { width: 390, height: 844 } });
  const { say } = await visitorPhone(browser, porch);
  await say('Have you any ferns?');
  await phone.getByRole('link', { name: /any ferns/ }).click();
  const field = phone.getByRole('textbox', { name: 'Your answer' });
  const { width = 0 } = (await field.boundingBox()) ?? {};
  expect(width).toBeGreaterThan(250);
  for (const [button, tray] of [
    [/^Quick replies/, 'Quick replies'],
    ['The shelf', 'The shelf'],
  ] as const) {
    await phone.getByRole('button', { name: button }).click();
    await expect(phone.getByRole('region', { name: tray })).toBeVisible();
    await phone.keyboard.press('Escape');
    await expect(phone.getByRole('region', { name: tray })).toHaveCount(0);
    await expect(field).toBeFocused();
  }
  await expect(phone.getByRole('log')).toContainText('Have you any ferns?');
});

test('an answer that nothing brings to whoever has gone stays owed, and is said not to have been delivered', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { page, panel, say, sayWho } = await visitorPhone(browser, porch);
  await say('Have you any ferns?');
  await sayWho();
  await panel.getByLabel('Email').fill('wren@post.example');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByText(/^Thank you/)).toBeVisible();
  await page.close();
  await phone.getByRole('link', { name: /any ferns/ }).click();
  // They have left a while after their page was closed, and that is known before anything is answered.
  await expect(async () => {
    await porch.pass(60_000);
    await expect(phone.getByText('Mail is not set up: it will show')).toBeVisible({
      timeout: 2_000,
    });
  }).toPass();
  await answer(phone, 'Three of them.');
  // By the server's clock it is said before that is set forward.
  await expect(phone.getByRole('log').getByText('Sent', { exact: true })).toBeVisible();
  await porch.pass(3 * 60_000);
  await expect(phone.getByRole('log')).toContainText(
    'Not delivered yet: they’ve left, and your email isn’t connected',
  );
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await expect(phone.getByRole('link', { name: /not delivered/ })).toBeVisible();
  await phone.getByRole('link', { name: /^Follow-ups/ }).click();
  await expect(phone.getByRole('listitem').filter({ hasText: 'Three of them.' })).toBeVisible();
});
