// Makes the pictures in docs/screenshots anew, from fresh demo data on ports of their own.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import sharp from 'sharp';
import { browserPath } from './browser.mjs';

const dataDir = mkdtempSync(join(tmpdir(), 'shots-'));
const ports = { PORT: '4960', STREET_PORT: '4970' };
const origin = `http://127.0.0.1:${ports.PORT}`;
const street = `http://127.0.0.1:${ports.STREET_PORT}`;
const phone = { width: 390, height: 844 };
const wide = { width: 1280, height: 800 };
const [owner] = JSON.parse(readFileSync('demo/accounts.json', 'utf8'));

const demo = spawn('node', ['scripts/demo.mjs', '--fresh', '--quiet-street'], {
  stdio: ['ignore', 'pipe', 'inherit'],
  env: { ...process.env, ...ports, DATA_DIR: dataDir },
});
// Also when a picture could not be made.
process.once('exit', () => demo.kill());
await new Promise((resolve, reject) => {
  demo.stdout.on('data', (text) => String(text).includes('is ready') && resolve());
  demo.once('exit', () => reject(new Error('the demo ended')));
});

const browser = await chromium.launch({
  executablePath: browserPath(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});

const open = async (viewport, colorScheme = 'light', locale = 'en-GB') => {
  const context = await browser.newContext({ viewport, colorScheme, locale });
  return context.newPage();
};

const shoot = async (page, name) => {
  // What follows the lamp has no end; a while is enough for all else to be there.
  await page.waitForLoadState('networkidle', { timeout: 4_000 }).catch(() => undefined);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};

/** Several screens of a phone as one picture. */
const sideBySide = async (name, pictures) => {
  await sharp({
    create: {
      width: phone.width * pictures.length + 20 * (pictures.length - 1),
      height: phone.height,
      channels: 3,
      background: '#dccfb8',
    },
  })
    .composite(pictures.map((input, at) => ({ input, top: 0, left: at * (phone.width + 20) })))
    .png()
    .toFile(`docs/screenshots/${name}.png`);
};

/** Whatever came last into a mailbox of the street. */
const openMail = async (address) => {
  const mailbox = await open({ width: 820, height: 760 });
  const mails = mailbox.locator('ul.mails a');
  do {
    await mailbox.goto(`${street}/mail/${address}`);
  } while ((await mails.count()) === 0);
  await mails.first().click();
  return mailbox;
};

const signIn = async (page) => {
  await page.goto(origin);
  await page.getByLabel('Email').fill(owner.email);
  await page.getByLabel('Password').fill(owner.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('button', { name: /^Waiting, / }).waitFor();
  return page;
};

const first = await signIn(await open(phone));
await first.getByRole('link', { name: 'House', exact: true }).click();
await first.getByText('The door is on your website').waitFor();
const checklist = await first.screenshot();
await first.goto(`${origin}/walk?step=snippet`);
await first.getByRole('button', { name: 'Copy the snippet' }).waitFor();
await sideBySide('setting-up', [await first.screenshot(), checklist]);
await first.goto(`${origin}/house/team`);
await first.getByRole('heading', { name: 'Invite somebody' }).waitFor();
const team = await first.screenshot();
await first.goto(`${origin}/house/hours`);
await first.getByText('Boxing Day').first().waitFor();
await first.getByRole('heading', { name: 'The week' }).scrollIntoViewIfNeeded();
const hours = await first.screenshot();
const imagined = (page) =>
  page.frameLocator('iframe[title="The door as visitors see it"]').frameLocator('iframe');
// An alert by mail: somebody waits for half a minute, and nobody looks.
await first.goto(`${origin}/house/doorbell`);
await first.getByLabel('Then write an email after').selectOption('30 seconds');
const waiting = await open(phone);
await waiting.goto(`${origin}/talk/quillfern-front-door`);
await waiting.getByRole('textbox').last().fill('Is the bench free on Saturday? It is a large one.');
await waiting.getByRole('button', { name: 'Send' }).click();
await shoot(await openMail(owner.email), 'alert-mail');
await first.goto(`${origin}/house/doorbell`);
await first.getByText(/last rung/).waitFor();
await sideBySide('hours-and-doorbell', [hours, await first.screenshot()]);
await waiting.close();
const desk = await signIn(await open(wide));
await desk.goto(`${origin}/house/dress/door-quillfern`);
await imagined(desk).getByRole('heading', { name: 'Quillfern Nursery' }).waitFor();
await shoot(desk, 'dress-wide');

// Three doors side by side, each dressed in its own way.
const panels = await Promise.all(
  ['quillfern-front-door', 'quillfern-bench-door', 'quillfern-german-door'].map(async (door) => {
    const page = await open(phone, 'light', door.includes('german') ? 'de-DE' : 'en-GB');
    await page.goto(`${origin}/talk/${door}`);
    await page.getByRole('textbox').last().waitFor();
    return page.screenshot();
  }),
);
await sideBySide('panels', panels);

const visitor = await open(wide);
await visitor.goto(`${street}/monstera-deliciosa`);
await visitor.getByRole('button', { name: /\. Write to us/ }).waitFor();
const passing = await open(phone);
await passing.goto(`${street}/monstera-deliciosa`);
await passing.getByRole('button', { name: /\. Write to us/ }).waitFor();
await shoot(passing, 'plate-phone');
await visitor.getByRole('button', { name: /\. Write to us/ }).click();
const panel = visitor.frameLocator('iframe');
await panel.getByLabel('Your message').fill('Hello! Is the tall one by the door still there?');
await panel.getByRole('button', { name: 'Send' }).click();
await panel.getByRole('button', { name: /^Leaving soon/ }).click();
await panel.getByLabel('Name').fill('Wren');
await panel.getByRole('button', { name: 'Save' }).click();

const owners = await signIn(await open(phone));
await owners.getByRole('link', { name: /^Wren/ }).waitFor();
await shoot(owners, 'line-phone');
await owners.getByRole('link', { name: /^Wren/ }).click();
const answer = owners.getByLabel('Your answer');
await answer.fill('It is, and it has just been watered. Shall I keep it for you?');
await owners.getByRole('button', { name: 'Send', exact: true }).click();
await panel.getByText('just been watered').waitFor();
await panel.getByLabel('Your message').fill('Yes please, I come by on Saturday.');
await panel.getByRole('button', { name: 'Send' }).click();
await owners.getByText('I come by on Saturday').waitFor();
const talking = await owners.screenshot();
await panel.getByText('Read').first().waitFor();
await shoot(visitor, 'panel-website');

await owners.getByRole('button', { name: 'Back to the line' }).click();
await owners.getByRole('button', { name: /^Porch light/ }).click();
await owners.getByRole('dialog', { name: 'Porch light' }).waitFor();
await sideBySide('conversation-and-lamp', [talking, await owners.screenshot()]);
await owners.keyboard.press('Escape');
await owners.getByRole('link', { name: /^Follow-ups/ }).click();
await owners.getByRole('heading', { name: /^Later, / }).waitFor();
const followUps = await owners.screenshot();
await owners.getByRole('link', { name: 'Search' }).click();
await owners.getByLabel('Words, a name, an email').fill('monstera');
await owners.getByText(/conversations$/).waitFor();
await sideBySide('follow-ups-and-search', [followUps, await owners.screenshot()]);
await owners.getByRole('link', { name: 'House', exact: true }).click();
await owners.getByRole('heading', { name: 'House', exact: true }).waitFor();
await sideBySide('house-phone', [await owners.screenshot(), team]);

// Answering: two dots and a code, gaps to be filled in, the tray with what fits, and a quick reply being written.
await owners.goto(`${origin}/line`);
await owners.getByRole('link', { name: /^Daisy/ }).click();
await answer.fill('Hello Daisy, ');
await answer.pressSequentially('..ha');
await owners.getByRole('option').first().waitFor();
const behindDots = await owners.screenshot();
await answer.press('Enter');
await owners.getByRole('group', { name: 'To fill in' }).waitFor();
const withGaps = await owners.screenshot();
await answer.fill('');
await owners.goto(`${origin}/line`);
await panel.getByLabel('Your message').fill('And how far do you deliver? I live in Hartwell.');
await panel.getByRole('button', { name: 'Send' }).click();
await owners.getByRole('link', { name: /^Wren, .*Hartwell/ }).click();
await owners.getByRole('button', { name: /^Quick replies, .* fits?/ }).click();
await owners.getByRole('region', { name: 'Quick replies' }).waitFor();
const tray = await owners.screenshot();
await owners.goto(`${origin}/house/replies`);
await owners.getByRole('link', { name: 'Change “How far we deliver”' }).click();
await owners
  .getByLabel('Text', { exact: true })
  .fill(
    'We deliver within ten miles of Larkhope, on tuesdays and Fridays, for £4.50. Which postcode, {first name|please}?',
  );
await owners.getByRole('button', { name: 'Write “Tuesdays”' }).waitFor();
await owners.getByText('Worth a look').scrollIntoViewIfNeeded();
await owners.getByLabel('Text', { exact: true }).blur();
const writing = await owners.screenshot();
await owners.getByRole('button', { name: 'Forget my changes' }).click();
await sideBySide('answering', [behindDots, withGaps, tray, writing]);

// The shelf: as it stands in the house, beside an answer, and handed over; and an order that was looked up.
await owners.goto(`${origin}/house/shelf`);
await owners.getByRole('link', { name: /^Change Calathea/ }).waitFor();
const shelf = await owners.screenshot();
const asking = await open(phone);
await asking.goto(street);
await asking.getByRole('button', { name: /\. Write to us/ }).click();
const asked = asking.frameLocator('iframe');
await asked
  .getByLabel('Your message')
  .fill('When could Maren repot it, and do you have a monstera?');
await asked.getByRole('button', { name: 'Send' }).click();
await owners.goto(`${origin}/line`);
await owners.getByRole('link', { name: /could Maren repot it/ }).click();
await owners.getByRole('button', { name: 'Put something in from the shelf' }).click();
await owners.getByRole('button', { name: /^Put in Repotting hour/ }).waitFor();
const beside = await owners.screenshot();
for (const thing of [/^Put in Variegated monstera/, /^Put in Repotting hour/]) {
  const take = owners.getByRole('button', { name: thing });
  if ((await take.count()) === 0) {
    await owners.getByRole('button', { name: 'Put something in from the shelf' }).click();
  }
  await take.click();
}
await answer.fill('One is left. Choose an hour:');
await owners.getByRole('button', { name: 'Send', exact: true }).click();
await asked.getByRole('article', { name: /^Variegated/ }).scrollIntoViewIfNeeded();
const handedOver = await asking.screenshot();
await asked.getByRole('button', { name: 'More' }).click();
await asked.getByRole('button', { name: 'Where is my order?' }).click();
await asked.getByLabel(/^Order number/).fill('QF-1104');
await asked.getByLabel(/^Email or phone/).fill('wren@post.example');
await asked.getByRole('button', { name: 'Find it' }).click();
await asked.getByText('Order QF-1104: Being potted').waitFor();
await sideBySide('shelf-and-orders', [shelf, beside, handedOver, await asking.screenshot()]);
await asking.close();

// Asked often: as buttons, with what follows, a guide that was found, and as it is written.
const curious = await open(phone);
await curious.goto(street);
await curious.getByRole('button', { name: /\. Write to us/ }).click();
const often = curious.frameLocator('iframe');
await often.getByRole('button', { name: 'When are you open?' }).waitFor();
const buttons = await curious.screenshot();
await often.getByRole('button', { name: 'Do you deliver?' }).click();
await often.getByText('Within 10 miles').waitFor();
const following = await curious.screenshot();
await often.getByRole('button', { name: 'More' }).click();
await often.getByRole('searchbox').fill('cats');
await often.getByRole('button', { name: 'Which plants are safe for cats?' }).click();
await often.getByText('Parlour palms').waitFor();
const guide = await curious.screenshot();
await owners.goto(`${origin}/house/dress/door-quillfern?part=asked`);
await owners.getByRole('button', { name: 'Change “Do you deliver?”' }).waitFor();
await owners.getByRole('button', { name: 'Move “When are you open?”' }).scrollIntoViewIfNeeded();
await owners.getByText('Found by search, or after another question').scrollIntoViewIfNeeded();
await sideBySide('asked-often', [buttons, following, guide, await owners.screenshot()]);
await curious.close();

// Other doors: one that fails, one whose window is closed, a text that costs double, and who writes by them.
const network = (path, fields) =>
  fetch(`${street}/${path}`, { method: 'POST', body: new URLSearchParams(fields) });
await network('wavelet/fault', { fault: 'revoked' });
await network('wavelet/phone/marit.k', { text: 'And do you have it in a larger pot?' });
await owners.goto(`${origin}/house`);
await owners.getByRole('heading', { name: 'House', exact: true }).waitFor();
await owners.getByRole('link', { name: /^Wavelet, failing/ }).waitFor();
await owners.getByRole('link', { name: /^Quillfern auf Deutsch/ }).scrollIntoViewIfNeeded();
const failing = await owners.screenshot();
const composing = async (who, text) => {
  await owners.goto(`${origin}/line`);
  await owners.getByRole('link', { name: who }).click();
  await owners.getByLabel('Your answer').fill(text);
  return owners.screenshot();
};
const closed = await composing(/^Old Oak/, 'We do, by the month.');
const dear = await composing(
  /^Rosa, .*second fern/,
  'It’s on the van with the others, Rosa: Friday at noon, by the blue gate if nobody’s in.',
);
await network('pigeonpost/phone/%2B447700900333', { text: 'And on Monday?' });
const street390 = await open(phone);
await street390.goto(`${street}/pigeonpost/phone/%2B447700900333`);
await street390.getByText('And on Monday?').waitFor();
await sideBySide('doors', [failing, closed, dear, await street390.screenshot()]);
await owners.goto(`${origin}/line`);

for (const [name, scheme] of [
  ['wide', 'light'],
  ['wide-night', 'dark'],
]) {
  const page = await signIn(await open(wide, scheme));
  await page.getByRole('link', { name: /^Abel Thorne/ }).click();
  await page.getByRole('button', { name: /^Open picture/ }).waitFor();
  await shoot(page, name);
}

// Open all day: whenever these pictures are made, "back in an hour" is within the hours.
const allDay = [{ from: 0, to: 24 * 60 }];
const week = Array.from({ length: 7 }, () => allDay);
await owners.evaluate(
  (hours) =>
    fetch('/api/hours', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ hours }),
    }),
  { week, holidays: null, spells: [] },
);

// Whoever has been on a page for a while is greeted.
const staying = await open(phone);
await staying.emulateMedia({ reducedMotion: 'reduce' });
await staying.clock.install();
await staying.goto(new URL('/monstera-deliciosa', street).href);
await staying.getByRole('button', { name: /\. Write to us/ }).waitFor();
const greeting = staying.getByText(/^Morning\./);
// What greets is loaded meanwhile; until it is there, time is of no use.
while ((await greeting.count()) === 0) await staying.clock.fastForward(5_000);
const greeted = await staying.screenshot();
await staying.close();

// The panel in each state of the porch light, and the mail that answers what was left while it was dark.
const late = await open(phone);
await late.goto(street);
await late.getByRole('button', { name: /\. Write to us/ }).click();
const note = late.frameLocator('iframe');
await note.getByLabel('Your message').waitFor();
const lit = await late.screenshot();
await owners.getByRole('link', { name: /^The line/ }).click();
await owners.getByRole('button', { name: /^Porch light/ }).click();
await owners.getByRole('button', { name: '1 h', exact: true }).click();
await note
  .getByText(/^Back /)
  .first()
  .waitFor();
const soon = await late.screenshot();
await owners.getByRole('button', { name: /^Porch light/ }).click();
await owners.getByRole('button', { name: 'Until I light it' }).click();
await note.getByLabel('Your note').fill('Could you keep two small ferns for me until Thursday?');
await note.getByRole('button', { name: 'Leave note' }).click();
await note.getByRole('button', { name: 'How can we reach you?' }).waitFor();
await sideBySide('panel-states', [greeted, lit, soon, await late.screenshot()]);
await note.getByRole('button', { name: 'How can we reach you?' }).click();
await note.getByLabel('Email').fill('wren@post.example');
await note.getByRole('button', { name: 'Save' }).click();
await note.getByText(/wren@post\.example/).waitFor();
await late.goto('about:blank');
await owners.getByRole('link', { name: /two small ferns/ }).click();
await owners
  .getByLabel('Your answer')
  .fill('With pleasure, they stand by the till for you until Thursday.');
await owners.getByRole('button', { name: 'Send', exact: true }).click();
await shoot(await openMail('wren@post.example'), 'visitor-mail');

await browser.close();
demo.kill('SIGTERM');
rmSync(dataDir, { recursive: true, force: true });
