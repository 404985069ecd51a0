import type { Since } from '@porch/contract/line';
import { cardOf } from '@porch/core/test-kit/cards';
import { expectClean } from '../kit/clean';
import { customersPhone, letGoWrong, openDoorTo } from '../kit/networks';
import {
  answer,
  expect,
  networkAccounts,
  ownerPhone,
  ownServer,
  test,
  visitorPhone,
} from '../kit/porch';

const minute = 60_000;
const hour = 60 * minute;

test('a door to a network is opened step by step and tried both ways', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await phone.getByRole('button', { name: 'Add a door' }).click();
  await phone.getByRole('button', { name: /^Pigeonpost, Messenger/ }).click();
  await phone.getByLabel('Address of Pigeonpost').fill(`${porch.site}/pigeonpost`);
  await phone.getByLabel('Your number there').fill('not a number');
  await phone.getByLabel('Key', { exact: true }).fill('an old key');
  await phone.getByRole('button', { name: 'Add it' }).click();
  // What is wrong stands beside its field, and nothing that was typed is gone.
  await expect(phone.getByRole('alert')).toContainText('number');
  await phone.getByLabel('Your number there').fill('+44 7700 900101');
  await phone.getByRole('button', { name: 'Add it' }).click();
  await expect(phone.getByRole('heading', { name: 'Pigeonpost', level: 1 })).toBeVisible();

  await phone.getByRole('button', { name: 'Ask whether all is well' }).click();
  await expect(phone.getByText(/The key was refused/).first()).toBeVisible();
  await phone.getByLabel('Key', { exact: true }).fill(networkAccounts.pigeonpost.key);
  await phone.getByRole('button', { name: 'Save' }).first().click();
  await expect(phone.getByText('Saved').first()).toBeVisible();
  await phone.getByRole('button', { name: 'Ask whether all is well' }).click();
  await expect(phone.getByText('It answered: all is well.')).toBeVisible();

  // At the network: the address and the word that the house gave.
  const street = await (await browser.newContext()).newPage();
  await street.goto(`${porch.site}/pigeonpost`);
  const shown = (name: string) =>
    phone.getByText(name, { exact: true }).locator('xpath=following-sibling::*[1]');
  const address = /http\S+\/in\/[\w-]+/.exec((await shown('Where letters go').innerText()) ?? '');
  const [word] = (await shown('Word').innerText()).split('\n');
  await street.getByLabel('Address of its door').fill(address?.[0] ?? '');
  await street.getByLabel('Word', { exact: true }).fill('another word');
  await street.getByRole('button', { name: 'Save' }).click();
  await expect(street.getByRole('alert')).toContainText('did not answer as it should');
  await street.getByRole('link', { name: 'Back to Pigeonpost' }).click();
  await street.getByLabel('Word', { exact: true }).fill(word ?? '');
  await street.getByRole('button', { name: 'Save' }).click();
  await expect(street.getByRole('heading', { name: 'Pigeonpost' })).toBeVisible();

  const isolde = await customersPhone(browser, porch, 'pigeonpost', '+447700900222');
  await isolde.say('Is this the nursery?');
  await expect(phone.getByText(/Heard from Isolde/)).toBeVisible();
  await phone.getByRole('button', { name: 'Send a test answer' }).click();
  await expect(isolde.roll).toContainText('your message has arrived');
  await expect(phone.getByText('The last answer has arrived and was read.')).toBeVisible();
});

test('everybody stands in one line, whichever network they write by, and is answered there', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const people = [
    ['text', 'Text messages', '+447700900456', 'Text of mine'],
    ['pigeonpost', 'Pigeonpost', '+447700900222', 'Letter of mine'],
    ['wavelet', 'Wavelet', 'marit.k', 'Wave of mine'],
    ['tintype', 'Tintype', 'hanne_makes', 'Direct of mine'],
  ] as const;
  for (const [kind, name, id, text] of people) {
    await openDoorTo(porch, kind, name);
    const customer = await customersPhone(browser, porch, kind, id);
    await customer.say(text);
    const row = phone.getByRole('link', { name: new RegExp(text) });
    await row.click();
    await expect(phone.getByRole('log')).toContainText(`by ${name}`);
    await expect(
      phone.getByRole('status').getByText(new RegExp(`^Goes to them by ${name}`)),
    ).toBeVisible();
    await answer(phone, `Heard by ${name}`);
    await expect(customer.roll).toContainText(`Heard by ${name}`);
    await expect(
      phone.getByRole('log').getByText(kind === 'text' ? 'Arrived' : 'Read', { exact: true }),
    ).toBeVisible();
    await phone.getByRole('button', { name: 'Back to the line' }).click();
  }
});

test('what somebody changes, takes back or sends twenty of is shown as what it is', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await openDoorTo(porch, 'pigeonpost', 'Pigeonpost');
  const bram = await customersPhone(browser, porch, 'pigeonpost', '+447700900333');
  await bram.say('Two ferns');
  await phone.getByRole('link', { name: /^Bram/ }).click();
  const roll = phone.getByRole('log');
  await bram.page.getByLabel('Change it to').fill('Three ferns');
  await bram.press('Change');
  await expect(roll.getByText('Three ferns')).toBeVisible();
  await expect(roll.getByText('Two ferns')).toHaveCount(0);
  await bram.press('Take back');
  await expect(roll.getByText('Taken back by them')).toBeVisible();
  await bram.press('A place');
  await expect(roll).toContainText('The blue gate');
  await bram.press('A contact card');
  await expect(roll).toContainText('Aunt Fern');
  await bram.press('A sticker');
  await expect(roll).toContainText('[sticker] a waving fern');
  await bram.press('A kind that nobody knows');
  await expect(roll).toContainText('[hologram]');
  await bram.press('20 pictures');
  await expect(roll.getByRole('button', { name: /^Open picture/ })).toHaveCount(20);
});

test('a text that costs double says which character makes it so, and STOP is obeyed', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await openDoorTo(porch, 'text', 'Text messages');
  const emlyn = await customersPhone(browser, porch, 'text', '+447700900456');
  await emlyn.say('When does the van come?');
  await phone.getByRole('link', { name: /When does the van come/ }).click();
  const field = phone.getByRole('textbox', { name: 'Your answer' });
  const plain = 'It comes on Friday at noon, and the driver leaves it behind the gate';
  await field.fill(`${plain} if nobody is in.`);
  await expect(phone.getByText(/^1 text message,/)).toBeVisible();
  await field.fill(`${plain} if nobody’s in.`);
  await expect(phone.getByText(/^Costs 2 text messages in Unicode/)).toBeVisible();
  await expect(phone.getByText('“’” makes it cost more')).toBeVisible();
  await expectClean(phone, 'a text that costs double');
  await phone.getByRole('button', { name: "Use ' for it" }).click();
  await expect(field).toHaveValue(`${plain} if nobody's in.`);
  await expect(phone.getByText(/^1 text message,/)).toBeVisible();
  await phone.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(emlyn.roll).toContainText("if nobody's in.");

  await emlyn.say('Stop');
  await expect(phone.getByRole('log')).toContainText('they want nothing more by this door');
  await expect(phone.getByText('They want nothing more by Text messages')).toBeVisible();
  await field.fill('One more thing');
  await expect(phone.getByRole('button', { name: 'Send', exact: true })).toBeDisabled();
  await emlyn.say('Start');
  await expect(phone.getByRole('button', { name: 'Send', exact: true })).toBeEnabled();
});

test('a window that closes is said before it does, and another way to the same person stays', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await openDoorTo(porch, 'pigeonpost', 'Pigeonpost');
  await openDoorTo(porch, 'text', 'Text messages');
  const letters = await customersPhone(browser, porch, 'pigeonpost', '+447700900123');
  const texts = await customersPhone(browser, porch, 'text', '+447700900123');
  await texts.say('First a text');
  await expect(phone.getByRole('link', { name: /First a text/ })).toBeVisible();
  await letters.say('And a letter');
  // The same number: nobody has to say that it is the same person.
  await expect(phone.getByRole('button', { name: /^Waiting, 1/ })).toBeVisible();
  await porch.pass(22 * hour);
  // A screen hears of a clock that was moved with the next word of the server's; a new one at once.
  await phone.reload();
  await expect(phone.getByRole('link', { name: /answer within/ })).toBeVisible();
  await phone.getByRole('link', { name: /And a letter/ }).click();
  await expect(phone.getByRole('log')).toContainText('First a text');
  await expect(phone.getByRole('log')).toContainText('it was proven to be one person');
  await expect(phone.getByText(/lets it through for another [12] h/)).toBeVisible();

  await porch.pass(3 * hour);
  await phone.reload();
  await expect(phone.getByText(/Pigeonpost has let nothing through since/)).toBeVisible();
  await expect(phone.getByText('They can still be reached by Text messages.')).toBeVisible();
  await expectClean(phone, 'a closed window');
  await phone.getByRole('radio', { name: 'Text messages' }).click();
  await answer(phone, 'By text then');
  await expect(texts.roll).toContainText('By text then');
  await expect(letters.roll).not.toContainText('By text then');

  // One person no more: each has what was said by their own door.
  await phone.getByRole('button', { name: 'Who’s this' }).click();
  await phone.getByRole('button', { name: /^Part .*Pigeonpost/ }).click();
  await phone.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await expect(phone.getByRole('log')).not.toContainText('And a letter');
});

test('a door that fails says since when and why, and what waits goes out once it is mended', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await openDoorTo(porch, 'wavelet', 'Wavelet');
  const marit = await customersPhone(browser, porch, 'wavelet', 'marit.k');
  await marit.say('Is it the silvery one?');
  await phone.getByRole('link', { name: /^Marit/ }).click();
  await expect(phone.getByRole('log')).toContainText('silvery');
  await letGoWrong(porch, 'wavelet', 'revoked');
  await answer(phone, 'It is');
  await expect(phone.getByText(/On its way out/)).toBeVisible();
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await expect(
    phone.getByRole('link', { name: /^Wavelet, .*failing since 10:00: The key was refused/ }),
  ).toBeVisible();
  await letGoWrong(porch, 'wavelet', 'none');
  await porch.pass(minute);
  await expect(marit.roll).toContainText('It is');
  await expect(phone.getByRole('link', { name: /^Wavelet, .*last heard/ })).toBeVisible();

  await phone.getByRole('link', { name: /^Wavelet,/ }).click();
  await phone.getByRole('button', { name: 'Take this door away' }).click();
  await phone.getByRole('button', { name: 'Take it away', exact: true }).click();
  await phone.getByRole('link', { name: /^The line/ }).click();
  await phone.getByRole('link', { name: /^Marit/ }).click();
  await expect(
    phone.getByText('Wavelet was taken away: it can be read, but not answered'),
  ).toBeVisible();
});

test('whatever goes wrong on the way, each message is there once and in its order', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await openDoorTo(porch, 'tintype', 'Tintype');
  const hanne = await customersPhone(browser, porch, 'tintype', 'hanne_makes');
  await hanne.say('One');
  await phone.getByRole('link', { name: /^Hanne/ }).click();
  const roll = phone.getByRole('log');
  await letGoWrong(porch, 'tintype', 'twice');
  await porch.pass(3_000);
  await hanne.say('Two');
  await expect(roll.getByText('Two', { exact: true })).toBeVisible();
  await letGoWrong(porch, 'tintype', 'out-of-order');
  await porch.pass(3_000);
  await hanne.say('Three');
  await porch.pass(3_000);
  await hanne.say('Four');
  await expect(roll.getByText('Three', { exact: true })).toBeVisible();
  const order = async () =>
    (await roll.innerText()).match(/\b(One|Two|Three|Four)\b/g)?.join(' ') ?? '';
  await expect.poll(order).toBe('One Two Three Four');
  await answer(phone, 'Three?');
  await expect(hanne.roll).toContainText('Three?');
  // Taken, and the answer cut off: it is asked again, and is one message there.
  await letGoWrong(porch, 'tintype', 'cut');
  await answer(phone, 'All four');
  await expect(hanne.roll).toContainText('All four');
  await letGoWrong(porch, 'tintype', 'none');
  await porch.pass(minute);
  await expect(roll.getByText('Read', { exact: true })).toHaveCount(2);
  await expect(hanne.roll.getByText('All four')).toHaveCount(1);
});

test('whoever would rather write by a messenger goes on there with the same conversation', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const door = await openDoorTo(porch, 'pigeonpost', 'Pigeonpost');
  await phone.goto(`${porch.origin}/house/door/${door.id}`);
  await phone.getByRole('switch', { name: 'Offer Pigeonpost in the panel' }).click();
  await expect(phone.getByRole('switch', { name: 'Offer Pigeonpost in the panel' })).toBeChecked();

  const { page, panel, say, more } = await visitorPhone(browser, porch);
  await say('Which fern likes a dark hall?');
  await more();
  await panel.getByRole('button', { name: 'Rather write by Pigeonpost?' }).click();
  await expect(panel.getByText(/we know that it is you/)).toBeVisible();
  const opened = page.context().waitForEvent('page');
  await panel.getByRole('link', { name: 'Write by Pigeonpost' }).click();
  const messenger = await opened;
  await messenger.getByRole('link', { name: 'Isolde' }).click();
  await expect(messenger.getByLabel('Write to the business')).toHaveValue(
    /^Hello, I was just writing/,
  );
  await messenger.getByRole('button', { name: 'Send', exact: true }).click();

  await phone.goto(`${porch.origin}/line`);
  await expect(phone.getByRole('button', { name: /^Waiting, 1/ })).toBeVisible();
  await phone.getByRole('link', { name: /I was just writing/ }).click();
  const roll = phone.getByRole('log');
  await expect(roll).toContainText('Which fern likes a dark hall?');
  await expect(roll).toContainText('by Pigeonpost');
  // The code may have been read by anybody: whom an answer is for is asked once.
  await answer(phone, 'The bird’s nest fern');
  await expect(phone.getByRole('alert')).toContainText('Choose who this is for');
  await phone.getByRole('radio', { name: 'Pigeonpost' }).click();
  await phone.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(messenger.getByRole('list').first()).toContainText('The bird’s nest fern');
  await expect(phone.getByText('joined with this conversation’s code')).toHaveCount(0);
  // What was said by the messenger is not shown on the website.
  await expect(panel.getByText('The bird’s nest fern')).toHaveCount(0);

  // What is begun for somebody is theirs, whichever door they write by meanwhile.
  await phone.reload();
  await phone.getByRole('textbox', { name: 'Your answer' }).fill('It likes shade');
  await say('Are you still there?');
  await expect(roll).toContainText('Are you still there?');
  await phone.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(messenger.getByRole('list').first()).toContainText('It likes shade');
  await expect(panel.getByText('It likes shade')).toHaveCount(0);
});

test('the listing follows the porch light, and the light follows the listing', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const door = await openDoorTo(porch, 'townfinder', 'Townfinder');
  const street = await (await browser.newContext()).newPage();
  const shows = async (text: string): Promise<void> => {
    await expect(async () => {
      await street.goto(`${porch.site}/townfinder`);
      await expect(street.getByText(/^Chat is/)).toContainText(text, { timeout: 500 });
    }).toPass();
  };
  await shows('Chat is on, somebody is there');
  await porch.ask('PUT', '/api/lamp', { state: 'dark', until: null });
  await shows('Chat is off');

  await street.getByLabel('Change it here').selectOption('Away for an hour');
  await street.getByRole('button', { name: 'Change the listing' }).click();
  await expect(phone.getByRole('button', { name: /^Porch light: Back at/ })).toBeVisible();
  await phone.goto(`${porch.origin}/house/door/${door.id}`);
  await expect(phone.getByText(/^Both say since 10:00: away until 11:00/)).toBeVisible();

  const orla = await customersPhone(browser, porch, 'townfinder', 'tf-8841');
  await orla.say('Do you sell pots as well?');
  await phone.goto(`${porch.origin}/line`);
  await phone.getByRole('link', { name: /^Orla/ }).click();
  await answer(phone, 'In every size');
  await expect(orla.roll).toContainText('In every size');
});

test('the questions of a listing are the cards of the website, whichever is changed', async ({
  browser,
  porch,
}) => {
  const cardId = 'card-parking-1';
  const answered = (said: string) =>
    porch.dress((dress) => {
      const card = cardOf(cardId, { question: 'Where can I park?', answer: said });
      dress.asked = {
        cards: [card],
        first: [{ id: cardId, states: ['lit', 'back-soon', 'dark'] }],
      };
    });
  await answered('In the yard.');
  const door = await openDoorTo(porch, 'townfinder', 'Townfinder');
  const street = await (await browser.newContext()).newPage();
  const answers = (index: number) => street.getByRole('textbox', { name: 'Answer' }).nth(index);
  await expect(async () => {
    await street.goto(`${porch.site}/townfinder`);
    await expect(answers(0)).toHaveValue('In the yard.', { timeout: 500 });
  }).toPass();

  await answers(0).fill('In the lane behind.');
  await street.getByRole('button', { name: 'Change it', exact: true }).first().click();
  await street.getByRole('textbox', { name: 'Question' }).last().fill('Are dogs welcome?');
  await street.getByRole('textbox', { name: 'Answer' }).last().fill('On a lead, gladly.');
  await street.getByRole('button', { name: 'Add it' }).click();

  const phone = await ownerPhone(browser, porch);
  await phone.goto(`${porch.origin}/house/door/${door.id}`);
  await expect(phone.getByText('2 questions are the same on both.')).toBeVisible();
  await expectClean(phone, 'a listing with its questions');
  const { panel } = await visitorPhone(browser, porch);
  await expect(panel.getByRole('button', { name: 'Are dogs welcome?' })).toBeVisible();
  await panel.getByRole('button', { name: 'Where can I park?' }).click();
  await expect(panel.getByText('In the lane behind.')).toBeVisible();

  await phone.getByRole('button', { name: 'Dress the cards' }).click();
  await phone.getByRole('button', { name: /^Change “Are dogs welcome\?”/ }).click();
  await phone.getByRole('textbox', { name: 'Answer' }).fill('Dogs are.');
  await expect(phone.getByText('Draft saved')).toBeVisible();
  await phone.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(async () => {
    await street.goto(`${porch.site}/townfinder`);
    await expect(answers(1)).toHaveValue('Dogs are.', { timeout: 500 });
  }).toPass();
});

test(
  'a busy morning with everything going wrong has each message once',
  ownServer,
  async ({ browser, porch }) => {
    test.slow();
    const kinds = ['text', 'pigeonpost', 'wavelet', 'tintype', 'townfinder'] as const;
    const faults = ['twice', 'out-of-order', 'twice', 'cut', 'slow'] as const;
    for (const [at, kind] of kinds.entries()) {
      await openDoorTo(porch, kind, `Door ${at}`);
      await letGoWrong(porch, kind, faults[at] ?? 'none');
    }
    const phone = await ownerPhone(browser, porch);
    await fetch(`${porch.site}/networks/busy-morning`, {
      method: 'POST',
      body: new URLSearchParams({ speed: '600' }),
    });
    // Killed in the middle of it, the house comes back, and the networks say again what it has not taken.
    await expect(phone.getByRole('button', { name: /^Waiting, [1-9]/ })).toBeVisible();
    await porch.open(await porch.kill());
    for (const kind of kinds) await letGoWrong(porch, kind, 'none');
    const said = async (): Promise<number> => {
      await porch.pass(60_000);
      const { entries } = await porch.ask<Since>('GET', '/api/since?seq=0');
      return entries.filter(({ kind }) => kind === 'visitor-said').length;
    };
    await expect.poll(said, { timeout: 90_000 }).toBe(120);
    // Nothing comes after it, and nobody stands in the line twice.
    await phone.reload();
    await expect(phone.getByRole('button', { name: /^Waiting, 40/ })).toBeVisible();
    expect(await said()).toBe(120);
  },
);

test('a missed call stands in the line, is heard, called back and answered by text', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await openDoorTo(porch, 'phone', 'Phone');
  const caller = await (await browser.newContext()).newPage();
  const call = async (spoken: string): Promise<void> => {
    await caller.goto(`${porch.site}/exchange`);
    await caller.getByLabel('From').fill('+447700900123');
    await caller.getByLabel(/^Speak after the tone/).fill(spoken);
    await caller.getByRole('button', { name: 'Call', exact: true }).click();
    await expect(caller.getByText(/^What the caller heard/)).toContainText('Nobody is in.');
  };
  await call('');
  await phone.getByRole('link', { name: /900123/ }).click();
  const roll = phone.getByRole('log');
  await expect(roll.getByText('Missed call', { exact: true })).toBeVisible();
  await expect(roll.getByRole('link', { name: 'Call +447700900123 back' })).toHaveAttribute(
    'href',
    'tel:+447700900123',
  );
  await expect(phone.getByText(/^Phone carries nothing written/)).toBeVisible();

  await call('Do you have two ferns for me?');
  await expect(roll.getByText('Do you have two ferns for me?')).toBeVisible();
  const sound = roll.getByLabel(/^Sound /);
  await expect(sound).toBeVisible();
  const bytes = await phone.request.get(
    porch.origin + new URL((await sound.getAttribute('src')) ?? '', porch.origin).pathname,
  );
  expect(bytes.headers()['content-type']).toContain('audio/');
  await expectClean(phone, 'a call');

  await openDoorTo(porch, 'text', 'Text messages');
  await phone.reload();
  await expect(phone.getByText('Goes to them as a text message')).toBeVisible();
  await answer(phone, 'Yes, by the till');
  const texts = await customersPhone(browser, porch, 'text', '+447700900123');
  await expect(texts.roll).toContainText('Yes, by the till');
  await texts.say('Thank you');
  // The same number: their text is the same conversation.
  await expect(roll.getByText('Thank you')).toBeVisible();
});
