import type { Page } from '@playwright/test';
import type { OpeningHours } from '@porch/core/hours/opening';
import { expectClean } from '../kit/clean';
import {
  answer,
  expect,
  openPanel,
  ownerPhone,
  type Porch,
  test,
  visitorPhone,
  watched,
} from '../kit/porch';

const minute = 60_000;
const hour = 60 * minute;
const day = [{ from: 540, to: 1_050 }];
const plain: OpeningHours = {
  week: [day, day, day, day, day, [], []],
  holidays: null,
  spells: [],
};
const setHours = (porch: Porch, hours: OpeningHours = plain) =>
  porch.ask('PUT', '/api/hours', { hours });

const lampOf = (page: Page) => page.getByRole('button', { name: /^Porch light/ });

/** Draws with a finger along a day, from one hour to another. */
const draw = async (page: Page, weekday: string, from: number, to: number): Promise<void> => {
  const row = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('button', { name: new RegExp(`^${weekday}`) }) });
  await row.scrollIntoViewIfNeeded();
  const box = await row.boundingBox();
  if (!box) throw new Error(`there is no ${weekday}`);
  const y = box.y + box.height - 12;
  const at = (hours: number): number => box.x + (box.width * hours) / 24;
  const session = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x?: number) =>
    session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: x === undefined ? [] : [{ x, y }],
    });
  await touch('touchStart', at(from));
  for (let step = 1; step <= 8; step += 1)
    await touch('touchMove', at(from + ((to - from) * step) / 8));
  await touch('touchEnd');
};

test('a week is drawn by thumb, holds once it is saved, and is there again', async ({
  browser,
  porch,
}) => {
  await porch.ask('PUT', '/api/hours', { hours: null });
  const phone = await ownerPhone(browser, porch, {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await phone.getByRole('link', { name: /^Opening hours/ }).click();
  await phone.getByRole('button', { name: 'Start with Monday to Friday' }).click();
  const saturday = phone.getByRole('button', { name: /^Saturday/ });
  await expect(saturday).toHaveAccessibleName(/Shut/);
  await draw(phone, 'Saturday', 10, 14);
  await expect(saturday).toHaveAccessibleName(/10:00–14:00/);
  // An edge is taken hold of, and moves.
  await draw(phone, 'Saturday', 14, 16);
  await expect(saturday).toHaveAccessibleName(/10:00–16:00/);
  // Without hours nothing is claimed.
  await expect(lampOf(phone)).toHaveAccessibleName(/Off: hours not set/);
  await phone.getByRole('button', { name: 'Save hours' }).click();
  await expect(phone.getByText('Saved. It holds from now on.')).toBeVisible();
  await expect(lampOf(phone)).toHaveAccessibleName(/Answering until 17:30/);
  await phone.reload();
  await expect(saturday).toHaveAccessibleName(/10:00–16:00/);
  await phone.getByRole('button', { name: '‹ House' }).click();
  await expect(phone.getByText('Opening hours are set')).toBeVisible();
});

test('a week is set by keyboard alone, in exact times, and copied to other days', async ({
  browser,
  porch,
}) => {
  await setHours(porch);
  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house/hours`);
  const monday = phone.getByRole('button', { name: /^Monday/ });
  await monday.focus();
  await phone.keyboard.press('Enter');
  const dialog = phone.getByRole('dialog', { name: 'Monday' });
  await dialog.getByLabel('Shuts').focus();
  await dialog.getByLabel('Shuts').fill('12:20');
  await dialog.getByRole('button', { name: 'Add a span' }).focus();
  await phone.keyboard.press('Enter');
  await dialog.getByRole('button', { name: 'Take over' }).focus();
  await phone.keyboard.press('Enter');
  await expect(dialog.getByRole('alert')).toContainText('Give both times');
  await dialog.getByLabel('Opens (2)').fill('22:00');
  await dialog.getByLabel('Shuts (2)').fill('02:05');
  await expect(dialog.getByText('Ends on the next day.')).toBeVisible();
  await dialog.getByRole('switch', { name: 'Tuesday' }).focus();
  await phone.keyboard.press('Space');
  await dialog.getByRole('button', { name: 'Take over' }).focus();
  await phone.keyboard.press('Enter');
  const both = /09:00–12:20, 22:00–02:05 next day/;
  await expect(monday).toHaveAccessibleName(both);
  await expect(phone.getByRole('button', { name: /^Tuesday/ })).toHaveAccessibleName(both);
  await phone.getByRole('button', { name: 'Save hours' }).focus();
  await phone.keyboard.press('Enter');
  await expect(phone.getByText('Saved. It holds from now on.')).toBeVisible();
  const { house } = await porch.ask<{ house: OpeningHours }>('GET', '/api/hours');
  const spans = [
    { from: 540, to: 740 },
    { from: 1_320, to: 1_565 },
  ];
  expect(house.week).toEqual([spans, spans, day, day, day, [], []]);
});

test('hours are pasted in and taken out as text, and what cannot be carried is said', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house/hours`);
  const paste = phone.getByRole('textbox', { name: 'Paste hours' });
  const read = phone.getByRole('button', { name: 'Read it' });
  await paste.fill('whenever we feel like it');
  await read.click();
  await expect(phone.getByRole('alert')).toContainText('No hours could be read');
  await paste.fill('Mo-Fr 08:00-12:00,13:00-17:00; Sa sunrise-12:00; Dec 24-26 off');
  await read.click();
  await expect(phone.getByText('The week above is now what was read.')).toBeVisible();
  await expect(phone.getByRole('list', { name: 'Not carried over:' })).toContainText(
    'goes by the sun',
  );
  await expect(phone.getByRole('button', { name: /^Friday/ })).toHaveAccessibleName(
    /08:00–12:00, 13:00–17:00/,
  );
  await phone.getByRole('button', { name: 'Save hours' }).click();
  await phone.getByRole('button', { name: 'Show the hours as text' }).click();
  await expect(phone.getByRole('group', { name: 'OpenStreetMap' })).toContainText(
    'Mo-Fr 08:00-12:00,13:00-17:00',
  );
  await expect(phone.getByRole('group', { name: 'schema.org' })).toContainText(
    'OpeningHoursSpecification',
  );
});

test('days of their own and holidays shut the door on their day, and no other', async ({
  browser,
  porch,
}) => {
  await setHours(porch);
  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house/hours`);
  await phone.getByLabel('Country').selectOption('GB');
  await phone.getByLabel('Part of the country').selectOption('SCT');
  await expect(phone.getByLabel('Saint Andrew’s Day').or(phone.getByLabel(/Andrew/))).toBeVisible();
  await phone.getByRole('button', { name: 'Add days' }).click();
  const dialog = phone.getByRole('dialog', { name: 'Add days' });
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(dialog.getByRole('alert')).toContainText('Choose a first day');
  await dialog.getByLabel('First day').fill('2026-11-13');
  await dialog.getByLabel('Last day').fill('2026-11-13');
  await dialog.getByLabel('What for').fill('Stocktaking');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(phone.getByText('Shut · Stocktaking')).toBeVisible();
  await phone.getByRole('button', { name: 'Save hours' }).click();
  await expect(phone.getByText('Saved. It holds from now on.')).toBeVisible();
  // The evening before: the next opening is on Monday, the days between are shut.
  await porch.pass(8 * hour);
  await expect(lampOf(phone)).toHaveAccessibleName(/Dark until Mon 09:00/);
});

test('a visitor elsewhere reads in their own language when somebody is back', async ({
  browser,
  porch,
}) => {
  await setHours(porch);
  const context = await browser.newContext({ locale: 'de-DE', timezoneId: 'Asia/Kathmandu' });
  const page = await watched(context);
  await porch.pass(9 * hour);
  const { publicId } = await porch.door();
  await page.goto(`${porch.origin}/talk/${publicId}`);
  await expect(page.getByText(/^Wieder da: .+, in 14 Stunden$/)).toBeVisible();
  await porch.pass(14 * hour);
  await expect(page.getByText(/^Wieder da/)).toBeHidden();
});

test('somebody who waits unseen is asked about once, and the light turns by itself where that is chosen', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say } = await visitorPhone(browser, porch);
  await say('Is anybody there?');
  await expect(phone.getByRole('link', { name: /anybody there/ })).toBeVisible();
  await porch.pass(3 * minute);
  const ask = phone.getByRole('alert').filter({ hasText: 'nobody has looked' });
  await expect(ask).toBeVisible();
  await expectClean(phone, 'the question about who waits');
  await phone.setViewportSize({ width: 1280, height: 800 });
  await expect(ask).toBeVisible();
  await expectClean(phone, 'the question about who waits, wide');
  await phone.setViewportSize({ width: 390, height: 844 });
  await ask.getByRole('button', { name: 'Leave it' }).click();
  await expect(ask).toBeHidden();
  await porch.pass(3 * minute);
  await expect(panel.getByText('Answering now')).toBeVisible();
  await expect(ask).toBeHidden();

  await porch.ask('PUT', '/api/promises', {
    graceMinutes: 30,
    showsUsual: true,
    whenLate: 'itself',
    mailAfterMinutes: 2,
    hereMinutes: 15,
  });
  const other = await watched(await browser.newContext());
  await other.goto(`${porch.site}/`);
  const second = await openPanel(other);
  await second.say('And now?');
  await expect(phone.getByRole('link', { name: /And now/ })).toBeVisible();
  await porch.pass(3 * minute);
  await expect(second.panel.getByText(/^Back at /)).toBeVisible();
  await phone.getByRole('link', { name: /And now/ }).click();
  await expect(phone.getByRole('log')).toContainText(
    'Nobody had looked in time: the porch light turned to “back soon” by itself',
  );
  await answer(phone, 'Yes');
  await expect(second.panel.getByText('Yes')).toBeVisible();
});

test('the light is lit while one of the team is in, and dark when the last one goes', async ({
  browser,
  porch,
}) => {
  await setHours(porch);
  const phone = await ownerPhone(browser, porch);
  const { panel } = await visitorPhone(browser, porch);
  await lampOf(phone).click();
  await phone.getByLabel('Maren Oduya (you)').selectOption({ label: 'Out for an hour' });
  await expect(lampOf(phone)).toHaveAccessibleName(/Dark until 11:00/);
  await expect(panel.getByText('Nobody is in right now')).toBeVisible();
  await porch.pass(hour + minute);
  await expect(lampOf(phone)).toHaveAccessibleName(/Answering until 17:30/);
  await expect(panel.getByText('Answering now')).toBeVisible();
});
