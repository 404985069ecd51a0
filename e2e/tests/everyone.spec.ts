import type { Locator } from '@playwright/test';
import { expectClean } from '../kit/clean';
import { openDoorTo } from '../kit/networks';
import { answer, expect, openVisitor, ownerPhone, test, visitorPhone, watched } from '../kit/porch';

const phone = { width: 390, height: 844 };
const wide = { width: 1280, height: 800 };

for (const [colorScheme, viewport] of [
  ['light', phone],
  ['dark', phone],
  ['light', wide],
  ['dark', wide],
] as const) {
  test(`every screen is clean by axe, ${colorScheme}, ${viewport.width} wide`, async ({
    browser,
    porch,
  }) => {
    const { panel, say, page } = await visitorPhone(browser, porch);
    await page.emulateMedia({ colorScheme });
    await page.setViewportSize(viewport);
    await say('Hello, see https://quillfern.example');
    await expect(panel.getByText('Sent').or(panel.getByText('Arrived'))).toBeVisible();
    await expectClean(page, 'panel on the website');

    const entrance = await watched(await browser.newContext({ colorScheme, viewport }));
    await entrance.goto(porch.origin);
    await expect(entrance.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await expect(entrance.getByRole('button', { name: 'Forgot the password?' })).toBeVisible();
    await expectClean(entrance, 'sign in');
    const early = await entrance.context().newPage();
    await early.route('**/_expo/**', (route) => route.abort());
    await early.goto(porch.origin);
    await expect(early.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await expectClean(early, 'sign in, before the app is there');

    const screen = await ownerPhone(browser, porch, { colorScheme, viewport });
    await expect(screen.getByRole('link', { name: /^Visitor/ })).toBeVisible();
    await expectClean(screen, 'line');
    await screen.getByRole('button', { name: /^Porch light/ }).click();
    await expect(screen.getByRole('dialog', { name: 'Porch light' })).toBeVisible();
    await expectClean(screen, 'lamp');
    await screen.keyboard.press('Escape');
    await openVisitor(screen, 'Hello');
    await answer(screen, 'Hi');
    await expect(screen.getByRole('log')).toContainText('Hi');
    await expectClean(screen, 'conversation');
    await screen.getByRole('button', { name: 'Put by', exact: true }).click();
    await expect(screen.getByRole('dialog', { name: 'Put by' })).toBeVisible();
    await expectClean(screen, 'put by');
    await screen.keyboard.press('Escape');
    if (viewport === phone) await screen.getByRole('button', { name: 'Who’s this' }).click();
    await screen.getByRole('button', { name: 'Follow up …' }).click();
    await expect(screen.getByRole('dialog', { name: /^Follow up/ })).toBeVisible();
    await expectClean(screen, 'follow up');
    await screen.getByRole('button', { name: 'Tomorrow, 09:00' }).click();
    await screen.goto(`${porch.origin}/follow-ups`);
    await expect(screen.getByText('Due Fri 09:00')).toBeVisible();
    await expectClean(screen, 'follow-ups');
    await screen.goto(`${porch.origin}/search`);
    await screen.getByLabel('Words, a name, an email').fill('hello');
    await expect(screen.getByText('1 conversation')).toBeVisible();
    await expectClean(screen, 'search');
    await screen.goto(`${porch.origin}/house`);
    await expect(screen.getByRole('heading', { name: 'House', exact: true })).toBeVisible();
    await expectClean(screen, 'house');
  });
}

for (const [colorScheme, viewport] of [
  ['light', phone],
  ['dark', wide],
] as const) {
  test(`one person of two conversations, and what could not be done, are clean by axe, ${colorScheme}, ${viewport.width} wide`, async ({
    browser,
    porch,
  }) => {
    const desk = await visitorPhone(browser, porch);
    const pocket = await visitorPhone(browser, porch);
    await desk.say('From the desk');
    await pocket.say('From the pocket');
    const screen = await ownerPhone(browser, porch, { colorScheme, viewport });
    await screen.getByRole('link', { name: /From the desk/ }).click();
    const who = screen.getByRole('button', { name: 'Who’s this' });
    const same = screen.getByRole('button', { name: 'The same person as …' });
    await expect(screen.getByRole('log')).toContainText('From the desk');
    if (viewport === phone) await who.click();
    await same.click();
    await screen.getByLabel('Who: a name, an email, words they wrote').fill('pocket');
    const found = screen.getByRole('button', { name: /From the pocket/ });
    await expect(found).toBeVisible();
    await expectClean(screen, 'the same person');
    await found.click();
    await expect(screen.getByRole('log')).toContainText('From the pocket');
    if (viewport === phone) await who.click();
    await expect(screen.getByRole('button', { name: /^Part / })).toHaveCount(2);
    await expectClean(screen, 'one person of two');

    // What is given up outside is not to be had here: the house says that there is some.
    const job = { kind: 'deliver', why: 'gone', tries: 12, madeAt: 0, diedAt: 0 };
    await screen.route('**/api/jobs/dead', (route) =>
      route.fulfill({ json: { jobs: [{ ...job, id: 1 }], count: 1 } }),
    );
    await screen.route('**/api/house', async (route) => {
      const response = await route.fetch();
      await route.fulfill({ response, json: { ...(await response.json()), deadJobs: 1 } });
    });
    await screen.goto(`${porch.origin}/house`);
    await expect(screen.getByText('Send an answer')).toBeVisible();
    await expectClean(screen, 'what could not be done');
  });

  test(`every page behind the House screen is clean by axe, ${colorScheme}, ${viewport.width} wide`, async ({
    browser,
    porch,
  }) => {
    // Two dozen screens, each looked through whole.
    test.slow();
    const screen = await ownerPhone(browser, porch, { colorScheme, viewport });
    const door = await porch.door();
    const behind = async (path: string, heading: string | RegExp): Promise<void> => {
      await screen.goto(porch.origin + path);
      await expect(screen.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
      await expectClean(screen, path);
    };
    await behind('/house/business', 'Business');
    await screen.goto(`${porch.origin}/house/hours`);
    await screen.getByLabel('Country').selectOption('GB');
    await expect(screen.getByText('Boxing Day').first()).toBeVisible();
    await screen.getByRole('button', { name: 'Show the hours as text' }).click();
    await expectClean(screen, 'hours');
    await screen.getByRole('button', { name: /^Friday/ }).click();
    await expect(screen.getByRole('dialog', { name: 'Friday' })).toBeVisible();
    await expectClean(screen, 'a day of the week');
    await behind('/house/team', 'Team');
    await behind('/house/me', 'You');
    await behind('/house/doorbell', 'Doorbell');
    await behind('/house/install', 'On the home screen');
    await behind('/house/mail', 'Mail');
    await behind('/house/orders', 'Orders');
    await behind('/house/shelf', 'The shelf');
    await behind('/house/shelf/new', 'Something new');
    await behind('/house/replies', 'Quick replies');
    await behind('/house/reply/new', 'A new quick reply');
    await screen.getByLabel('Text', { exact: true }).fill('Hello NAME {first name}, teh fern');
    await expect(screen.getByText(/“teh” is not in the dictionary/)).toBeVisible();
    await expectClean(screen, 'a quick reply with findings');
    await behind('/house/new-door', 'Add a door');
    await screen.getByRole('button', { name: /^Text messages,/ }).click();
    await expectClean(screen, 'a new door to a network');
    const network = await openDoorTo(porch, 'text', 'Text messages');
    await behind(`/house/door/${network.id}`, 'Text messages');
    await behind(`/house/door/${door.id}`, 'Quillfern Nursery');
    await behind('/walk?step=website', 'Your website');
    await behind('/walk?step=snippet', 'Put the door up');
    await behind('/walk?step=test', 'Write to yourself');
    await behind(`/house/dress/${door.id}`, 'Dressing room');
    for (const part of ['People', 'Texts', 'Where', 'Guest book']) {
      await screen.getByRole('radio', { name: part, exact: true }).click();
      await expectClean(screen, `dressing room, ${part}`);
    }
    await screen.goto(`${porch.origin}/house`);
    await screen.getByRole('button', { name: 'Sign in a phone' }).click();
    await expect(screen.getByRole('img', { name: /Code for the phone/ })).toBeVisible();
    await expectClean(screen, 'sign in a phone');
  });
}

test('the system’s mode is followed by all of a screen while it is open', async ({
  browser,
  porch,
}) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Do you have ferns?');
  const screen = await ownerPhone(browser, porch, { colorScheme: 'light' });
  await openVisitor(screen, 'ferns');
  await answer(screen, 'Seven kinds');
  const inkOf = async (what: Locator): Promise<string> =>
    what.evaluate((element) => getComputedStyle(element).color);
  const places = [
    screen.getByRole('heading', { level: 1 }),
    screen.getByText('Seven kinds'),
    screen.getByText('Do you have ferns?'),
    screen.getByLabel('Your answer'),
  ];
  for (const colorScheme of ['dark', 'light', 'dark'] as const) {
    const before = await Promise.all(places.map(inkOf));
    await screen.emulateMedia({ colorScheme });
    for (const [at, place] of places.entries()) {
      await expect.poll(() => inkOf(place)).not.toBe(before[at]);
    }
    await expectClean(screen, `a conversation that turned ${colorScheme}`);
  }
});

test('links that let somebody in, and each shape of the door, are clean by axe', async ({
  browser,
  porch,
}) => {
  const { link } = await porch.ask<{ link: string }>('POST', '/api/invites', { role: 'helper' });
  const page = await watched(await browser.newContext());
  await page.goto(link);
  await expect(page.getByRole('heading', { name: /^Join/ })).toBeVisible();
  await expectClean(page, 'join');
  await page.goto(`${porch.origin}/pair`);
  await expect(page.getByRole('alert')).toBeVisible();
  await expectClean(page, 'pair without a code');
  for (const plate of ['upright', 'lintel', 'latch'] as const) {
    await porch.dress((dress) => {
      dress.look = { ...dress.look, plate, ground: '#7A8B99', accent: '#FFD700', face: 'initials' };
      dress.where.manners = [{ pattern: '*', manner: 'peek', afterSeconds: 0 }];
      dress.consent = { isAsked: true, link: 'https://quillfern.example/privacy' };
    });
    const visitor = await watched(await browser.newContext());
    await visitor.goto(porch.site);
    await expect(visitor.getByText('Can we help?')).toBeVisible();
    await expectClean(visitor, plate);
    await visitor.getByRole('button', { name: /\. Write to us/ }).click();
    await expect(visitor.frameLocator('iframe').getByRole('checkbox')).toBeVisible();
    await expectClean(visitor, `panel, ${plate}`);
  }
});

test('the panel reads out what the team answers, and nothing that was said before', async ({
  browser,
  porch,
}) => {
  const { panel, say, page } = await visitorPhone(browser, porch);
  await say('Is the bench open?');
  const phone = await ownerPhone(browser, porch);
  await openVisitor(phone, 'Is the bench');
  await answer(phone, 'Until six today.');
  await expect(panel.getByText('Until six today.')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: /^Quillfern/ }).click();
  await expect(panel.getByText('Until six today.')).toBeVisible();
  const log = panel.getByRole('log');
  await expect(log).toHaveAttribute('aria-live', 'polite');
  // As a screen reader does: what is added to a live region while it is live.
  await log.evaluate((region) => {
    const heard: string[] = [];
    Object.assign(window, { heard });
    new MutationObserver((changes) => {
      if (region.getAttribute('aria-live') !== 'polite') return;
      for (const { addedNodes } of changes)
        for (const node of addedNodes) heard.push(node.textContent ?? '');
    }).observe(region, { childList: true, subtree: true });
  });
  await answer(phone, 'And from nine tomorrow.');
  await expect(panel.getByText('And from nine tomorrow.')).toBeVisible();
  const heard = await log.evaluate(() => (window as unknown as { heard: string[] }).heard);
  expect(heard.join('\n')).toContain('And from nine tomorrow.');
  expect(heard.join('\n')).not.toContain('Until six today.');
});

test('a conversation is opened, answered and left by keyboard alone, and opens in a tab of its own', async ({
  browser,
  porch,
}) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Is the bench open?');
  const screen = await ownerPhone(browser, porch, { viewport: wide });
  const row = screen.getByRole('link', { name: /^Visitor/ });
  await expect(row).toBeVisible();
  const address = await row.getAttribute('href');
  const [tab] = await Promise.all([
    screen.context().waitForEvent('page'),
    row.click({ modifiers: ['ControlOrMeta'] }),
  ]);
  await expect(tab.getByRole('log')).toContainText('Is the bench open?');
  expect(new URL(tab.url()).pathname).toBe(address);
  expect(new URL(screen.url()).pathname).toBe('/line');
  await tab.close();
  const goTo = async (there: Locator): Promise<void> => {
    for (let step = 0; step < 80; step += 1) {
      if (await there.evaluate((element) => element === document.activeElement)) return;
      await screen.keyboard.press('Tab');
    }
    await expect(there).toBeFocused();
  };
  await goTo(row);
  await screen.keyboard.press('Enter');
  await expect(screen.getByRole('log')).toContainText('Is the bench open?');
  await goTo(screen.getByRole('textbox', { name: /answer/i }));
  await screen.keyboard.type('It is.');
  await goTo(screen.getByRole('button', { name: 'Send', exact: true }));
  await screen.keyboard.press('Enter');
  await expect(screen.getByRole('log')).toContainText('It is.');
  for (const place of ['House', 'Search', 'Follow-ups'] as const) {
    await goTo(screen.getByRole('navigation').getByRole('link', { name: place }));
    await screen.keyboard.press('Enter');
    await expect(screen.getByRole('heading', { level: 1, name: place })).toBeAttached();
  }
});

test('the dressing room is used by keyboard alone', async ({ browser, porch }) => {
  const screen = await ownerPhone(browser, porch, { viewport: { width: 1280, height: 800 } });
  await screen.goto(`${porch.origin}/house/dress/${(await porch.door()).id}`);
  const left = screen.getByRole('radio', { name: 'Left' });
  const side = screen.getByRole('radiogroup').filter({ has: left });
  const right = side.getByRole('radio', { name: 'Right' });
  await expect(right).toBeChecked();
  const isAt = (there: Locator): Promise<boolean> =>
    there.evaluate((option) => option === document.activeElement);
  for (let step = 0; step < 40; step += 1) {
    await screen.keyboard.press('Tab');
    // A group of choices is one stop: whoever passes by comes to none but the chosen one.
    expect(await isAt(left)).toBe(false);
    if (await isAt(right)) break;
  }
  await expect(right).toBeFocused();
  await screen.keyboard.press('ArrowLeft');
  await expect(left).toBeFocused();
  await expect(left).toBeChecked();
  await screen.keyboard.press('ArrowLeft');
  await expect(right).toBeChecked();
  await screen.keyboard.press('ArrowRight');
  await expect(left).toBeChecked();
  await expect(screen.getByText('Draft saved')).toBeVisible();
});

test('the set-up is clean by axe', async ({ browser, emptyPorch }) => {
  const page = await watched(await browser.newContext());
  await page.goto(emptyPorch.origin);
  await expect(page.getByRole('heading', { name: 'Set up your house' })).toBeVisible();
  await expectClean(page, 'set up');
});

test('text at twice the size loses nothing', async ({ browser, porch }) => {
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  const phone = await ownerPhone(browser, porch);
  await phone.addInitScript(() => {
    document.addEventListener('DOMContentLoaded', () => {
      document.documentElement.style.fontSize = '32px';
    });
  });
  await phone.reload();
  const row = phone.getByRole('link', { name: /^Visitor/ });
  await expect(row).toBeVisible();
  const widest = await phone.evaluate(() => document.documentElement.scrollWidth);
  expect(widest).toBeLessThanOrEqual(390);
  await row.click();
  await expect(phone.getByRole('button', { name: 'Send', exact: true })).toBeInViewport();
  await expect(phone.getByRole('button', { name: 'Wrap up' })).toBeInViewport();
  const { id } = await porch.door();
  for (const path of ['', '/business', '/team', '/me', `/door/${id}`, `/dress/${id}`]) {
    await phone.goto(`${porch.origin}/house${path}`);
    await expect(phone.getByRole('heading', { level: 1 }).first()).toBeVisible();
    expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      390,
    );
  }
});
