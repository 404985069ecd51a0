import type { Page } from '@playwright/test';
import { expectClean } from '../kit/clean';
import { expect, ownerPhone, type Porch, test, visitorPhone } from '../kit/porch';

/** A stored answer, made as a page of ours would. */
const stores = (porch: Porch, code: string, title: string, text: string): Promise<unknown> =>
  porch.ask('PUT', `/api/quick-replies/reply-${code.padEnd(8, '0')}`, {
    revision: 0,
    isOwn: false,
    title,
    code,
    text,
    group: '',
    language: 'en',
    fileIds: [],
  });

const field = (page: Page) => page.getByLabel('Your answer');

/** What is selected in the field. */
const selected = (page: Page): Promise<string> =>
  field(page).evaluate((area: HTMLTextAreaElement) =>
    area.value.slice(area.selectionStart, area.selectionEnd),
  );

/** A visitor who has said something, and the owner who reads it. */
const inTalk = async (browser: Parameters<typeof visitorPhone>[0], porch: Porch) => {
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Do you have ferns?');
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('link', { name: /Do you have ferns/ }).click();
  await expect(phone.getByRole('log')).toContainText('Do you have ferns?');
  return { visitor, phone };
};

test('two dots and a code put a quick reply where one writes, and it goes once its gaps are filled', async ({
  browser,
  porch,
}) => {
  await stores(
    porch,
    'have',
    'We have it in',
    'Hi {first name|there}, {plant?} is in, for {price?}. {my name}',
  );
  await stores(porch, 'hours', 'When we are open', 'From nine.');
  const { visitor, phone } = await inTalk(browser, porch);

  await field(phone).pressSequentially('hm..h');
  await expect(phone.getByRole('option')).toHaveCount(0);
  await field(phone).fill('');
  await field(phone).pressSequentially('..h');
  const options = phone.getByRole('option');
  await expect(options).toHaveText([/We have it in/, /When we are open/]);
  await expectClean(phone, 'quick replies behind two dots');
  await field(phone).press('Escape');
  await expect(options).toHaveCount(0);
  await field(phone).fill('');
  await field(phone).fill('..h');
  await field(phone).press('ArrowDown');
  await expect(options.nth(1)).toHaveAttribute('aria-selected', 'true');
  await field(phone).press('ArrowUp');
  await field(phone).press('Enter');
  await expect(field(phone)).toHaveValue('Hi there, {plant?} is in, for {price?}. Maren Oduya');
  await expect.poll(() => selected(phone)).toBe('{plant?}');
  await expectClean(phone, 'an answer with gaps');

  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByRole('alert')).toContainText('“plant?” is still to be filled in');
  await expect.poll(() => selected(phone)).toBe('{plant?}');
  await field(phone).pressSequentially('A fern');
  await field(phone).press('Tab');
  await expect.poll(() => selected(phone)).toBe('{price?}');
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByRole('alert')).toContainText('“price?” is still to be filled in');
  await field(phone).pressSequentially('£9');
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(
    visitor.panel.getByText('Hi there, A fern is in, for £9. Maren Oduya'),
  ).toBeVisible();
});

test('the tray gives what was stored, also without signal, and a tap puts it where one writes', async ({
  browser,
  porch,
}) => {
  await stores(porch, 'hours', 'When we are open', 'From nine.');
  await stores(porch, 'far', 'How far we deliver', 'Ten miles.');
  const { visitor, phone } = await inTalk(browser, porch);
  const tray = phone.getByRole('region', { name: 'Quick replies' });
  const open = phone.getByRole('button', { name: 'Quick replies', exact: true });
  await open.click();
  await expectClean(phone, 'the reply tray');
  await tray.getByLabel('Find a quick reply').fill('deliver');
  await expect(tray.getByRole('button', { name: /^Take/ })).toHaveCount(1);
  await tray.getByRole('button', { name: 'Take “How far we deliver”' }).click();
  await expect(field(phone)).toHaveValue('Ten miles.');
  await expect(tray).toHaveCount(0);

  await phone.context().setOffline(true);
  await field(phone).fill('');
  await open.click();
  await tray.getByRole('button', { name: 'Take “When we are open”' }).click();
  await phone.getByRole('button', { name: 'Send' }).click();
  await phone.context().setOffline(false);
  await expect(visitor.panel.getByText('From nine.')).toBeVisible();
});

test('the tray offers what fits what was said, marks why, and nothing goes by itself', async ({
  browser,
  porch,
}) => {
  await stores(porch, 'far', 'How far we deliver', 'Our van delivers within ten miles.');
  await stores(porch, 'hours', 'When we are open', 'From nine.');
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Could your van deliver to Hartwell?');
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('link', { name: /Could your van deliver/ }).click();
  await phone.getByRole('button', { name: 'Quick replies, one fits' }).click();
  const fits = phone.getByRole('group', { name: 'What fits' });
  await expect(fits.getByRole('button')).toHaveCount(1);
  await expectClean(phone, 'the reply tray with what fits');
  await fits.getByRole('button', { name: 'Take what fits: “How far we deliver”' }).click();
  await expect(field(phone)).toHaveValue('Our van delivers within ten miles.');
  await expect(visitor.panel.getByText('Our van delivers')).toHaveCount(0);
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(visitor.panel.getByText('Our van delivers within ten miles.')).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Quick replies', exact: true })).toBeVisible();

  await visitor.say('Who painted your wall?');
  await expect(phone.getByRole('log')).toContainText('Who painted your wall?');
  await phone.getByRole('button', { name: 'Quick replies', exact: true }).click();
  await expect(phone.getByRole('button', { name: 'Take “When we are open”' })).toBeVisible();
  await expect(fits).toHaveCount(0);
});

test('an answer that was given is made a quick reply with two taps, its particulars gaps', async ({
  browser,
  porch,
}) => {
  const { phone } = await inTalk(browser, porch);
  await field(phone).fill('Yes we do. QF-1101 has left us. Maren Oduya');
  await phone.getByRole('button', { name: 'Send' }).click();
  await phone.getByRole('button', { name: 'Make a quick reply of this' }).click();
  await expect(phone.getByLabel('Text', { exact: true })).toHaveValue(
    'Yes we do. {order number?} has left us. {my name}',
  );
  await phone.getByRole('button', { name: 'Save' }).click();
  await expect(phone.getByRole('log')).toContainText('Do you have ferns?');
  await field(phone).fill('..yes');
  await expect(phone.getByRole('option')).toHaveText([/Yes we do/]);
});

test('a quick reply is written with what may be wrong in it, and kept until it is saved', async ({
  browser,
  porch,
}) => {
  await stores(porch, 'hours', 'When we are open', 'From nine.');
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('Hello');
  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house`);
  await phone.getByRole('link', { name: /^Quick replies,/ }).click();
  await phone.getByRole('button', { name: 'Write a quick reply' }).click();
  await phone.getByLabel('Title').fill('Ferns');
  await phone.getByLabel('Short code').fill('Hours');
  const text = phone.getByLabel('Text', { exact: true });
  await text.fill('Hi {first name|you}, we recieve  ferns: Quilfern NAME');
  await expect(phone.getByText('Two spaces in a row')).toBeVisible();
  await phone.getByRole('button', { name: 'One space' }).click();
  await phone.getByRole('button', { name: 'Ask for it: {name?}' }).click();
  await phone.getByRole('button', { name: 'Write “receive”' }).click();
  await phone.getByRole('button', { name: '“Quilfern” is right here' }).click();
  await expect(phone.getByText('Nothing to correct.')).toBeVisible();
  await expect(text).toHaveValue('Hi {first name|you}, we receive ferns: Quilfern {name?}');
  const preview = phone.getByRole('group', { name: 'As somebody would read it' });
  await expect(preview).toContainText('Hi you, we receive ferns');
  await expect(preview).toContainText('You will be asked for: name?');

  await phone.reload();
  await expect(text).toHaveValue('Hi {first name|you}, we receive ferns: Quilfern {name?}');
  await phone.getByRole('button', { name: 'Save' }).click();
  await expect(phone.getByText('“When we are open” has this code already.')).toBeVisible();
  await phone.getByLabel('Short code').fill('ferns');
  await phone.getByRole('button', { name: 'Save' }).click();
  await expect(phone.getByRole('link', { name: 'Change “Ferns”' })).toBeVisible();

  await phone.getByRole('link', { name: 'Change “Ferns”' }).click();
  await phone.getByRole('button', { name: 'Delete' }).click();
  await expect(phone.getByRole('link', { name: 'Change “Ferns”' })).toHaveCount(0);
  await phone.getByRole('button', { name: 'Undo' }).click();
  await expect(phone.getByRole('link', { name: 'Change “Ferns”' })).toBeVisible();
});

test('whoever changes what somebody else has changed meanwhile is told, keeps theirs, and says which it is', async ({
  browser,
  porch,
}) => {
  await stores(porch, 'hours', 'When we are open', 'From nine.');
  const screens = [await ownerPhone(browser, porch), await ownerPhone(browser, porch)] as const;
  for (const screen of screens) {
    await screen.goto(`${porch.origin}/house/replies`);
    await screen.getByRole('link', { name: 'Change “When we are open”' }).click();
  }
  const [first, second] = screens;
  const text = (screen: Page) => screen.getByLabel('Text', { exact: true });
  const inList = (screen: Page) => screen.getByRole('link', { name: 'Change “When we are open”' });
  const save = (screen: Page) => screen.getByRole('button', { name: 'Save', exact: true }).click();
  await text(second).fill('From ten.');
  await text(first).fill('From eleven.');
  await save(first);
  await expect(inList(first)).toContainText('From eleven.');
  // Also where what was written waited over a reload.
  await second.reload();
  await expect(text(second)).toHaveValue('From ten.');
  await save(second);
  await expect(second.getByText(/Somebody has changed it meanwhile/)).toBeVisible();
  await expect(text(second)).toHaveValue('From ten.');
  await save(second);
  await expect(inList(second)).toContainText('From ten.');

  // One that is deleted under somebody's hands is kept by whoever saves it.
  await inList(first).click();
  await inList(second).click();
  await text(second).fill('From twelve.');
  await first.getByRole('button', { name: 'Delete' }).click();
  await expect(second.getByText(/This quick reply is not there any more/)).toBeVisible();
  await save(second);
  await expect(inList(second)).toContainText('From twelve.');
});

test('a table of quick replies is read in, with what was not taken and why', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house/replies`);
  await expect(phone.getByText('No quick replies yet')).toBeVisible();
  const read = async (table: string): Promise<void> => {
    const choosing = phone.waitForEvent('filechooser');
    await phone.getByRole('button', { name: 'Read in CSV' }).click();
    const file = { name: 'replies.csv', mimeType: 'text/csv', buffer: Buffer.from(table) };
    await (await choosing).setFiles(file);
  };
  await read('nothing;of;ours');
  await expect(phone.getByText(/it needs a column called “text”/)).toBeVisible();
  await read('code;title;text\nhours;Hours;=From(nine)\ne;Empty;');
  await expect(phone.getByText('1 added, 0 changed, 0 as they were.')).toBeVisible();
  await expect(phone.getByText('Row 3 (Empty): it has no text')).toBeVisible();
  const downloading = phone.waitForEvent('download');
  await phone.getByRole('link', { name: 'Write out CSV' }).click();
  const download = await downloading;
  expect(download.suggestedFilename()).toBe('quick-replies.csv');
  const chunks: Buffer[] = [];
  for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
  expect(String(Buffer.concat(chunks))).toContain("'=From(nine)");
});
