import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import type { QuickReplies } from '@porch/contract/replies';
import type { ShelfShown } from '@porch/contract/shelf';
import { newThing, type ShelfThing } from '@porch/core/shelf';
import sharp from 'sharp';
import { expectClean } from '../kit/clean';
import { mailsOf, setMail } from '../kit/mail';
import { customersPhone, openDoorTo } from '../kit/networks';
import {
  answer,
  expect,
  openVisitor,
  ownerPhone,
  type Porch,
  someDay,
  test,
  visitorPhone,
} from '../kit/porch';

const minute = 60_000;
const hour = 60 * minute;

let made = 0;
const put = (porch: Porch, thing: Partial<ShelfThing> & Pick<ShelfThing, 'kind' | 'name'>) => {
  made += 1;
  return porch.ask<ShelfShown>('PUT', `/api/shelf/shelf-of-test-${made}`, {
    revision: 0,
    thing: { ...newThing(thing.kind), ...thing },
    fileId: null,
  });
};

const takeFromShelf = async (screen: Page, name: string): Promise<void> => {
  await screen.getByRole('button', { name: 'Put something in from the shelf' }).click();
  await screen.getByRole('button', { name: `Put in ${name}` }).click();
  await expect(screen.getByRole('button', { name: `Take out ${name}` })).toBeVisible();
};

test('an item is put on the shelf, and handed over in the panel, by mail and by a messenger', async ({
  browser,
  porch,
}) => {
  await setMail(porch);
  const screen = await ownerPhone(browser, porch);
  await screen.getByRole('link', { name: 'House', exact: true }).click();
  await screen.getByRole('link', { name: /^The shelf/ }).click();
  await expect(screen.getByText('The shelf is empty')).toBeVisible();
  await screen.getByRole('button', { name: 'Put something on the shelf' }).click();
  await screen.getByLabel('Name').fill('Hart’s-tongue fern');
  await screen.getByLabel('Price').fill('a lot');
  await screen.getByRole('radio', { name: 'In stock' }).click();
  await screen.getByLabel('Link', { exact: true }).fill('https://quillfern.example/fern');
  await screen.getByLabel('What you say of it').fill('For shade.');
  const choosing = screen.waitForEvent('filechooser');
  await screen.getByRole('button', { name: 'Add a picture' }).click();
  const drawn = {
    create: { width: 300, height: 200, channels: 3, background: '#2f6247' },
  } as const;
  await (await choosing).setFiles({
    name: 'fern.png',
    mimeType: 'image/png',
    buffer: await sharp(drawn).png().toBuffer(),
  });
  await expect(screen.getByRole('img', { name: 'fern.jpg' })).toBeVisible();
  await screen.getByRole('button', { name: 'Save' }).click();
  // What is wrong stands beside its field, and nothing that was typed is gone, also after a reload.
  await expect(screen.getByText('This is no price. Write it like £24.50')).toBeVisible();
  await screen.reload();
  await expect(screen.getByLabel('Name')).toHaveValue('Hart’s-tongue fern');
  await screen.getByLabel('Price').fill('£14.50');
  await screen.getByRole('button', { name: 'Save' }).click();
  await expect(screen.getByRole('link', { name: 'Change Hart’s-tongue fern' })).toContainText(
    'Item · £14.50 · In stock',
  );

  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Do you have ferns?');
  await screen.getByRole('link', { name: /^The line/ }).click();
  await openVisitor(screen, 'Do you have ferns?');
  await takeFromShelf(screen, 'Hart’s-tongue fern');
  await answer(screen, 'One is left:');
  const card = visitor.panel.getByRole('article').filter({ hasText: 'Hart’s-tongue fern' });
  await expect(card).toContainText('£14.50 · In stock');
  await expect(card).toContainText('For shade.');
  await expect(card.getByRole('link', { name: 'See more quillfern.example/fern' })).toHaveAttribute(
    'href',
    'https://quillfern.example/fern',
  );
  // On a narrow phone too nothing of it stands beyond its edge.
  await visitor.page.setViewportSize({ width: 320, height: 640 });
  expect(await card.evaluate(({ scrollWidth, clientWidth }) => scrollWidth - clientWidth)).toBe(0);
  await visitor.page.setViewportSize({ width: 390, height: 844 });
  await card.getByRole('button', { name: /fern\.jpg/ }).click();
  const large = visitor.panel.getByRole('dialog', { name: 'fern.jpg' });
  await expect(large.getByRole('img')).toBeVisible();
  await visitor.page.keyboard.press('Escape');
  await expect(large).toBeHidden();
  await expectClean(visitor.page, 'a thing of the shelf in the panel');

  await visitor.sayWho();
  await visitor.panel.getByLabel('Email').fill('wren@post.example');
  await visitor.panel.getByRole('button', { name: 'Save' }).click();
  await expect(visitor.panel.getByText('We can reach you at wren@post.example')).toBeVisible();
  await visitor.page.goto('about:blank');
  await expect(async () => {
    await porch.pass(minute);
    await expect(screen.getByText(/^Goes by email to wren@post\.example/)).toBeVisible({
      timeout: 1_000,
    });
  }).toPass();
  await takeFromShelf(screen, 'Hart’s-tongue fern');
  await screen.getByRole('button', { name: 'Send', exact: true }).click();
  await porch.pass(minute);
  await expect.poll(async () => (await mailsOf(porch, 'wren@post.example')).length).toBe(1);
  const [mail] = await mailsOf(porch, 'wren@post.example');
  const whole = 'Hart’s-tongue fern\n£14.50, In stock\nFor shade.\nhttps://quillfern.example/fern';
  expect(mail?.text.replaceAll('\r', '')).toContain(whole);

  await openDoorTo(porch, 'wavelet', 'Wavelet');
  const marit = await customersPhone(browser, porch, 'wavelet', 'marit.k');
  await marit.say('And by Wavelet?');
  await screen.getByRole('button', { name: 'Back to the line' }).click();
  await screen.getByRole('link', { name: /And by Wavelet/ }).click();
  await takeFromShelf(screen, 'Hart’s-tongue fern');
  await answer(screen, 'Here as well:');
  await expect(marit.roll).toContainText('Here as well:');
  await expect(marit.roll).toContainText('£14.50, In stock');
  await expect(marit.roll).toContainText('https://quillfern.example/fern');
  const link = marit.roll.getByRole('link', { name: 'A file from the business' });
  // The house names itself by the port that it was started with, which is none here.
  const { pathname } = new URL((await link.getAttribute('href')) ?? '');
  const picture = await marit.page.request.get(porch.origin + pathname);
  expect(picture.headers()['content-type']).toBe('image/jpeg');
});

test('an offer that ended while the answer waited without signal is not sent; the answer goes without it', async ({
  browser,
  porch,
}) => {
  const until = someDay + hour;
  await put(porch, { kind: 'offer', name: 'A tenth off bulbs', code: 'BULB10', until });
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Is anything off?');
  const screen = await ownerPhone(browser, porch);
  await openVisitor(screen, 'Is anything off?');
  await takeFromShelf(screen, 'A tenth off bulbs');
  await screen.context().setOffline(true);
  await expect(screen.getByText('No connection.')).toBeVisible();
  await answer(screen, 'Yes:');
  await expect(screen.getByRole('log')).toContainText('Waiting for signal');
  await expect(screen.getByRole('log')).toContainText('Code BULB10');
  await porch.pass(2 * hour);
  await screen.context().setOffline(false);
  await expect(screen.getByRole('alert').filter({ hasText: 'is over.' })).toContainText(
    '“A tenth off bulbs” is over. Nothing was sent',
  );
  await screen.getByRole('button', { name: 'Send without it' }).click();
  await expect(visitor.panel.getByRole('list', { name: 'Conversation' })).toContainText('Yes:');
  await expect(visitor.panel.getByRole('article')).toHaveCount(0);
  await expect(screen.getByRole('log').getByText('Yes:')).toHaveCount(1);
  // Nor does it stand in the tray any more.
  await screen.getByRole('button', { name: 'Put something in from the shelf' }).click();
  await expect(screen.getByRole('region', { name: 'The shelf' })).toBeVisible();
  await expect(screen.getByRole('button', { name: /^Put in/ })).toHaveCount(0);
});

test('the shelf is read in from a file, with what was not taken and why, and written out', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await screen.goto(`${porch.origin}/house/shelf`);
  const give = async (button: string, name: string, text: string): Promise<void> => {
    const choosing = screen.waitForEvent('filechooser');
    await screen.getByRole('button', { name: button }).click();
    await (await choosing).setFiles({
      name,
      mimeType: 'application/octet-stream',
      buffer: Buffer.from(text),
    });
  };
  await give(
    'Read in CSV',
    'shelf.csv',
    'name;price;stock\r\n=Fern;14,50;yes\r\nMoss;cheap;no\r\n',
  );
  await expect(screen.getByText('1 thing on the shelf.')).toBeVisible();
  await expect(screen.getByText(/^Row 3 \(Moss\): its price is none/)).toBeVisible();
  await give('Read in JSON', 'shelf.json', '[{"@type":"Place","name":"The greenhouse"');
  await expect(screen.getByText(/^This is no JSON-LD that can be read/)).toBeVisible();
  const graph = [{ '@type': 'Place', name: 'The greenhouse', address: '4 Canal Row' }];
  await give('Read in JSON', 'shelf.json', JSON.stringify({ '@graph': graph }));
  await expect(screen.getByRole('link', { name: 'Change The greenhouse' })).toContainText(
    'Place · 4 Canal Row',
  );
  const downloading = screen.waitForEvent('download');
  await screen.getByRole('link', { name: 'Write out CSV' }).click();
  const written = await readFile(await (await downloading).path(), 'utf8');
  // A spreadsheet that opens it reckons nothing.
  expect(written).toContain("item,'=Fern,,14.50,GBP,in");
  expect(written).toContain('place,The greenhouse');

  // What is not there any more is asked for once, and can be written anew.
  let askedCount = 0;
  screen.on('request', (request) => {
    if (request.url().endsWith('/api/shelf/not-there-00001')) askedCount += 1;
  });
  await screen.goto(`${porch.origin}/house/shelf/not-there-00001`);
  await expect(screen.getByText(/^This is not on the shelf any more/)).toBeVisible();
  await screen.getByRole('radio', { name: 'Picture' }).click();
  await screen.getByLabel('Name').fill('The bench');
  await screen.getByRole('button', { name: 'Save' }).click();
  await expect(screen.getByText('It has no picture yet. Add one')).toBeVisible();
  expect(askedCount).toBeLessThanOrEqual(2);
  await screen.goto(`${porch.origin}/house/shelf`);

  await screen.getByRole('button', { name: 'Clear the shelf' }).click();
  await screen.getByRole('button', { name: 'Clear it' }).click();
  await expect(screen.getByText('The shelf is empty')).toBeVisible();
});

test('what somebody else changed meanwhile is not lost to a draft, and what is taken off the shelf is put back whole', async ({
  browser,
  porch,
}) => {
  const fern = await put(porch, { kind: 'item', name: 'Fern' });
  await porch.ask('PUT', '/api/quick-replies/reply-of-test-2', {
    ...{ revision: 0, isOwn: false, title: 'Fern', code: 'fern', text: 'Here:' },
    ...{ group: '', language: 'en', fileIds: [], shelfIds: [fern.id] },
  });
  const screen = await ownerPhone(browser, porch);
  await screen.goto(`${porch.origin}/house/shelf/${fern.id}`);
  await screen.getByLabel('What you say of it').fill('For shade.');
  const theirs = { ...newThing('item'), name: 'Fern', price: '12', currency: 'GBP' };
  const body = { revision: fern.revision, thing: theirs, fileId: null };
  await porch.ask('PUT', `/api/shelf/${fern.id}`, body);
  await screen.reload();
  await expect(screen.getByLabel('What you say of it')).toHaveValue('For shade.');
  await screen.getByRole('button', { name: 'Save' }).click();
  await expect(screen.getByText(/^Somebody changed this meanwhile/)).toBeVisible();
  await screen.getByRole('button', { name: 'Forget these changes' }).click();
  await screen.reload();
  await expect(screen.getByLabel('Price')).toHaveValue('12 GBP');

  await screen.getByLabel('What you say of it').fill('Not saved');
  await screen.getByRole('button', { name: 'Take it off the shelf' }).click();
  await screen.getByRole('button', { name: 'Undo' }).click();
  await expect(screen.getByRole('link', { name: 'Change Fern' })).toContainText('Item · £12');
  const { replies } = await porch.ask<QuickReplies>('GET', '/api/quick-replies');
  expect(replies?.map(({ shelf }) => shelf)).toEqual([[{ id: fern.id, name: 'Fern' }]]);
  const { text } = await porch.ask<ShelfShown>('GET', `/api/shelf/${fern.id}`);
  expect(text).toBe('');
});

test('a quick reply brings what goes with it, without what is off the shelf; free times come as a calendar', async ({
  browser,
  porch,
}) => {
  const starts = [someDay + 24 * hour];
  const times = await put(porch, { kind: 'slots', name: 'Repotting hour', starts, minutes: 45 });
  const gone = await put(porch, { kind: 'item', name: 'Moss' });
  await porch.ask('PUT', '/api/quick-replies/reply-of-test-1', {
    ...{ revision: 0, isOwn: false, title: 'Repotting', code: 'pots', text: 'Choose one:' },
    ...{ group: '', language: 'en', fileIds: [], shelfIds: [times.id, gone.id] },
  });
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('When could you repot it?');
  const screen = await ownerPhone(browser, porch);
  await openVisitor(screen, 'When could you repot it?');
  await porch.ask('DELETE', `/api/shelf/${gone.id}`);
  await screen.getByRole('textbox', { name: 'Your answer' }).pressSequentially('..pots');
  await screen.keyboard.press('Enter');
  await expect(screen.getByRole('button', { name: 'Take out Repotting hour' })).toBeVisible();
  await screen.getByRole('button', { name: 'Send', exact: true }).click();
  const card = visitor.panel.getByRole('article').first();
  await expect(card).toContainText('Friday 13 November, 10:00');
  await card.getByRole('button', { name: 'Friday 13 November, 10:00' }).click();
  const field = visitor.panel.getByRole('textbox', { name: 'Your message' });
  await expect(field).toHaveValue('Friday 13 November, 10:00, please');
  await expect(field).toBeFocused();
  await field.fill('');
  const downloading = visitor.page.waitForEvent('download');
  await card.getByRole('button', { name: /^Download Repotting hour\.ics/ }).click();
  const calendar = await readFile(await (await downloading).path(), 'utf8');
  expect(calendar).toContain('DTSTART:20261113T100000Z');
  expect(calendar).toContain('DURATION:PT45M');

  // Without signal it goes by its name, and the house says what it is.
  await screen.context().setOffline(true);
  await expect(screen.getByText('No connection.')).toBeVisible();
  await screen.getByRole('textbox', { name: 'Your answer' }).pressSequentially('..pots');
  await screen.keyboard.press('Enter');
  await expect(screen.getByRole('button', { name: 'Take out Repotting hour' })).toBeVisible();
  await expect(screen.getByText(/is not on the shelf any more/)).toHaveCount(0);
  await screen.getByRole('button', { name: 'Send', exact: true }).click();
  await screen.context().setOffline(false);
  await expect(visitor.panel.getByRole('article')).toHaveCount(2);
  await expect(visitor.panel.getByRole('article').last()).toContainText('Friday 13 November');
});
