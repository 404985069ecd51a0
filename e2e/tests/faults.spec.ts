import { randomBytes } from 'node:crypto';
import type { Page } from '@playwright/test';
import type { LinePage, RollPage } from '@porch/contract/line';
import WebSocket from 'ws';
import {
  answer,
  expect,
  openPanel,
  openVisitor,
  owner,
  ownerPhone,
  ownServer,
  type Porch,
  test,
  visitorPhone,
} from '../kit/porch';

test('a visitor without signal loses nothing, even over a reload, and repeats nothing', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say, page, context } = await visitorPhone(browser, porch);
  await say('With signal');
  await expect(panel.getByRole('listitem').filter({ hasText: 'With signal' })).toContainText(
    'Arrived',
  );
  await context.setOffline(true);
  await say('In the tunnel, one');
  await say('In the tunnel, two');
  await expect(panel.getByText('No connection.')).toBeVisible();
  await expect(panel.getByText('Waiting to be sent')).toHaveCount(2);
  await panel.getByRole('textbox', { name: 'Your message' }).fill('Half a thought');

  await context.setOffline(false);
  await page.reload();
  const again = await openPanel(page);
  await expect(again.panel.getByRole('textbox', { name: 'Your message' })).toHaveValue(
    'Half a thought',
  );
  for (const text of ['With signal', 'In the tunnel, one', 'In the tunnel, two']) {
    await expect(again.panel.getByRole('listitem').filter({ hasText: text })).toHaveCount(1);
  }
  await phone.getByRole('link', { name: /^Visitor/ }).click();
  await expect(phone.getByRole('log')).toContainText(
    /With signal[\s\S]*tunnel, one[\s\S]*tunnel, two/,
  );
});

/** Waits until the device has the app itself, and what was last seen in it. */
const keepsTheApp = (phone: Page): Promise<unknown> =>
  phone.evaluate(async () => {
    await navigator.serviceWorker.ready;
    const kept = indexedDB.open('porch-kept');
    await new Promise((resolve) => {
      kept.onsuccess = resolve;
    });
    const read = (): Promise<string> =>
      new Promise((resolve) => {
        const asked = kept.result.transaction('seen').objectStore('seen').get('seen');
        asked.onsuccess = () => resolve(String(asked.result));
      });
    while (!/"roll"/.test(await read())) await new Promise(requestAnimationFrame);
  });

test('an owner without signal answers and wraps up all the same, over a reload', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch, { serviceWorkers: 'allow' });
  const { panel, say } = await visitorPhone(browser, porch);
  await say('Hello');
  await openVisitor(phone, 'Hello');
  await keepsTheApp(phone);
  await phone.context().setOffline(true);
  await expect(phone.getByText('No connection.')).toBeVisible();
  await answer(phone, 'From the van');
  await expect(phone.getByRole('log')).toContainText('Waiting for signal');

  // The app opens without signal too, with what it last knew and what waits to be sent.
  await phone.reload();
  await expect(phone.getByText('No connection.')).toBeVisible();
  await expect(phone.getByRole('log')).toContainText(/Hello[\s\S]*From the van/);
  await expect(phone.getByRole('log')).toContainText('Waiting for signal');
  await phone.getByRole('button', { name: 'Wrap up', exact: true }).click();
  await expect(phone.getByText('Wrapped up').first()).toBeVisible();

  await phone.context().setOffline(false);
  await expect(panel.getByRole('listitem').filter({ hasText: 'From the van' })).toHaveCount(1);
  await expect(phone.getByRole('button', { name: 'Wrapped up, 1' })).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Waiting, 0' })).toBeVisible();
});

test(
  'a server that was killed comes back, and both sides catch up by themselves',
  ownServer,
  async ({ browser, porch }) => {
    const phone = await ownerPhone(browser, porch);
    const { panel, say } = await visitorPhone(browser, porch);
    await say('Before');
    await openVisitor(phone, 'Before');
    const port = await porch.kill();
    await say('While it was down');
    await answer(phone, 'Answered while it was down');
    await expect(panel.getByText('No connection.')).toBeVisible();
    await porch.open(port);
    await expect(phone.getByRole('log')).toContainText('While it was down', { timeout: 40_000 });
    await expect(panel.getByText('Answered while it was down')).toHaveCount(1, { timeout: 40_000 });
  },
);

interface Writer {
  token: string;
  acknowledged: string[];
  socket: WebSocket;
}

/** A visitor who writes one message after another, each once the one before it is on disk. */
const startWriting = (porch: Porch, door: string, which: number): Writer => {
  const writer: Writer = {
    token: randomBytes(32).toString('base64url'),
    acknowledged: [],
    socket: new WebSocket(`${porch.origin.replace('http', 'ws')}/door/${door}/live`, {
      origin: porch.origin,
    }),
  };
  const { socket, token } = writer;
  let count = 0;
  const next = (): void => {
    const id = `writer-${which}-message-${count}`;
    count += 1;
    socket.send(
      JSON.stringify({ do: 'say', id, text: `${which}: ${count}`, fileIds: [], page: null }),
    );
  };
  socket.on('open', () =>
    socket.send(JSON.stringify({ do: 'hello', token, since: 0, site: porch.site })),
  );
  socket.on('message', (data) => {
    const message = JSON.parse(String(data)) as { say: string; id: string };
    if (message.say === 'taken') writer.acknowledged.push(message.id);
    if (message.say === 'welcome' || message.say === 'taken') next();
  });
  socket.on('error', () => undefined);
  return writer;
};

test(
  'killed while fifty visitors write, it has every acknowledged message once and in order',
  ownServer,
  async ({ porch }) => {
    const { publicId } = await porch.door();
    const writers = Array.from({ length: 50 }, (_, index) => startWriting(porch, publicId, index));
    const acknowledged = () => writers.reduce((sum, writer) => sum + writer.acknowledged.length, 0);
    await expect.poll(acknowledged).toBeGreaterThan(400);
    const port = await porch.kill();
    for (const { socket } of writers) socket.terminate();
    await porch.open(port);

    const roll = new Map<string, string[]>();
    for (let after = ''; ; ) {
      const page = await porch.ask<LinePage>('GET', `/api/line?group=waiting${after}`);
      for (const { id } of page.rows) {
        const { entries } = await porch.ask<RollPage>('GET', `/api/conversations/${id}`);
        const ids = entries.flatMap((entry) => (entry.kind === 'visitor-said' ? [entry.id] : []));
        roll.set(ids[0]?.split('-message')[0] ?? '', ids);
      }
      if (page.next === null) break;
      after = `&after=${page.next}`;
    }
    for (const [index, { acknowledged: ids }] of writers.entries()) {
      const kept = roll.get(`writer-${index}`) ?? [];
      expect(new Set(kept).size).toBe(kept.length);
      // What was on its way may be there as well; what was acknowledged must be, in its order.
      expect(kept.slice(0, ids.length)).toEqual(ids);
      expect(kept.length).toBeLessThanOrEqual(ids.length + 1);
    }
  },
);

test('a phone whose clock is an hour off shows the right times left', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.clock.install({ time: Date.now() + 3_600_000 });
  await phone.reload();
  const { say } = await visitorPhone(browser, porch);
  await say('How long have I waited?');
  await expect(phone.getByRole('link', { name: /Visitor.*, (1 min|\d+ s) left/ })).toBeVisible();
});

test('nonsense in every place is kept as plain words and breaks nothing', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say, sayWho } = await visitorPhone(browser, porch);
  const nasty = '<img src=x onerror="document.title=1"> "\'; DROP TABLE entries;-- ‮abc';
  await say(nasty);
  await expect(panel.getByText('DROP TABLE')).toBeVisible();
  await sayWho();
  await panel.getByLabel('Name').fill('<script>alert(1)</script>');
  await panel.getByRole('button', { name: 'Save' }).click();
  await phone.getByRole('link', { name: /<script>alert\(1\)<\/script>/ }).click();
  await expect(phone.getByRole('log')).toContainText('<img src=x');
  await expect(phone).toHaveTitle(/Quillfern/);
  const field = panel.getByRole('textbox', { name: 'Your message' });
  await field.fill('x'.repeat(4_001));
  await expect(panel.getByRole('alert')).toContainText('1 characters too long');
  await field.press('Enter');
  await expect(field).toHaveValue('x'.repeat(4_001));
  await panel
    .getByRole('textbox', { name: 'Your message' })
    .evaluate((area: HTMLTextAreaElement) => {
      // A megabyte pasted at once.
      area.focus();
      area.setRangeText('y'.repeat(1_000_000));
      area.dispatchEvent(new InputEvent('input', { bubbles: true }));
    });
  await expect(panel.getByRole('alert')).toContainText('It was not taken in');
  await expect(field).toHaveValue('x'.repeat(4_001));
  await field.fill('');
  await field.press('Enter');
  await expect(panel.getByRole('alert')).toContainText('nothing to send');
});

test('a website that is not on the list shows no plate, and its page shows no error', async ({
  browser,
  porch,
}) => {
  const { id } = await porch.door();
  await porch.ask('PUT', `/api/doors/${id}`, { sites: ['elsewhere.example'] });
  const page = await (await browser.newContext()).newPage();
  const failures: string[] = [];
  page.on('pageerror', (error) => failures.push(error.message));
  const refused = page.waitForEvent('requestfailed', (request) =>
    /configuration/.test(request.url()),
  );
  await page.goto(porch.site);
  await refused;
  await expect(page.getByRole('heading', { name: 'Houseplants' })).toBeVisible();
  await expect(page.getByRole('button', { name: /\. Write to us/ })).toHaveCount(0);
  expect(failures).toEqual([]);
});

test('with the network cut for both, each keeps what they wrote, and both have it once when it is back', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say, context } = await visitorPhone(browser, porch);
  await say('Before the cut');
  await openVisitor(phone, 'Before the cut');
  await context.setOffline(true);
  await phone.context().setOffline(true);
  await say('From the visitor, cut off');
  await answer(phone, 'From the owner, cut off');
  await expect(panel.getByText('Waiting to be sent')).toBeVisible();
  await expect(panel.getByText('No connection.')).toBeVisible();
  await expect(phone.getByText('Waiting for signal')).toBeVisible();
  await expect(phone.getByText('No connection.')).toBeVisible();

  await phone.context().setOffline(false);
  await context.setOffline(false);
  await expect(panel.getByText('From the owner, cut off')).toHaveCount(1);
  await expect(phone.getByRole('log').getByText('From the visitor, cut off')).toHaveCount(1);
  await expect(panel.getByText('No connection.')).toHaveCount(0);
  await expect(phone.getByText('Waiting for signal')).toHaveCount(0);
  await expect(phone.getByRole('log').getByText('From the owner, cut off')).toHaveCount(1);
});

test('two visitors with one name stay two people', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  for (const words of ['I am the first', 'I am the second']) {
    const { panel, say, sayWho } = await visitorPhone(browser, porch);
    await say(words);
    await sayWho();
    await panel.getByLabel('Name').fill('Wren Ashdown');
    await panel.getByRole('button', { name: 'Save' }).click();
  }
  const rows = phone.getByRole('link', { name: /^Wren Ashdown/ });
  await expect(rows).toHaveCount(2);
  await rows.filter({ hasText: 'I am the second' }).click();
  await expect(phone.getByRole('log')).toContainText('I am the second');
  await expect(phone.getByRole('log')).not.toContainText('I am the first');
});

test('where no web socket is let through both sides write letters, and miss nothing', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const visitor = await visitorPhone(browser, porch);
  await visitor.say('By socket');
  for (const context of [phone.context(), visitor.context]) {
    await context.routeWebSocket(/\/live$/, (socket) => socket.close());
  }
  await phone.reload();
  await visitor.page.reload();
  const { panel, say } = await openPanel(visitor.page);
  await say('By letter');
  await openVisitor(phone, 'By letter');
  await expect(phone.getByText('No connection.')).toBeHidden();
  await answer(phone, 'An answer all the same');
  await expect(panel.getByText('An answer all the same')).toBeVisible();
  await expect(panel.getByRole('listitem').filter({ hasText: 'By letter' })).toContainText('Read');
  await expect(panel.getByText('No connection.')).toBeHidden();
});

test('a screen whose code does not come is said to be missing, and comes when it is asked for again', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const code = /\/search-[^/]*\.js/;
  await phone.route(code, (route) => route.abort());
  await phone.getByRole('link', { name: 'Search' }).click();
  const again = phone.getByRole('button', { name: 'Try again' });
  await expect(again).toBeVisible();
  await phone.context().setOffline(true);
  await again.click();
  await expect(again).toBeVisible();
  await phone.context().setOffline(false);
  await phone.unroute(code);
  await again.click();
  await expect(phone.getByRole('searchbox')).toBeVisible();
});

test('what was done without signal and came too late is not shown as done, and says what can be', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  await openVisitor(phone, 'Hello');
  await phone.context().setOffline(true);
  await phone.getByRole('button', { name: 'Put by' }).click();
  await phone.getByRole('button', { name: 'In an hour' }).click();
  await expect(phone.getByRole('link', { name: /^Visitor/ })).toBeHidden();
  await porch.pass(2 * 3_600_000);
  await phone.context().setOffline(false);
  const strip = phone.getByRole('alert').filter({ hasText: 'One thing was not done' });
  await expect(strip).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Put by, 0' })).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Waiting, 1' })).toBeVisible();
  await strip.getByRole('button', { name: 'Look' }).click();
  await expect(phone.getByRole('log')).toContainText('Not put by until');
  await expect(phone.getByRole('log')).toContainText('This time has passed');
  await phone.getByRole('button', { name: 'Choose another time' }).click();
  await phone.getByRole('button', { name: 'Tomorrow, 09:00' }).click();
  await expect(phone.getByRole('button', { name: 'Put by, 1' })).toBeVisible();
  await expect(strip).toBeHidden();
});

test('what was refused at once is not offered to be undone', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Hello');
  await openVisitor(phone, 'Hello');
  let refuse = (): void => undefined;
  const isRefused = new Promise<void>((resolve) => {
    refuse = resolve;
  });
  await phone.route('**/deeds', async (route) => {
    if (route.request().postDataJSON().do !== 'put-by') return route.continue();
    await isRefused;
    return route.fulfill({ status: 422, json: { code: 'time-not-ahead' } });
  });
  await phone.getByRole('button', { name: 'Put by' }).click();
  await phone.getByRole('button', { name: 'In an hour' }).click();
  const undo = phone.getByRole('button', { name: 'Undo' });
  await expect(undo).toBeVisible();
  refuse();
  await expect(
    phone.getByRole('alert').filter({ hasText: 'One thing was not done' }),
  ).toBeVisible();
  expect(await undo.isVisible()).toBe(false);
});

test(
  'after a restored backup both sides show what the house has, and go on from there',
  ownServer,
  async ({ browser, porch }) => {
    const phone = await ownerPhone(browser, porch);
    const { panel, say } = await visitorPhone(browser, porch);
    await say('Before the backup');
    await openVisitor(phone, 'Before the backup');
    const backup = porch.backUp();
    await say('After the backup');
    await expect(phone.getByRole('log')).toContainText('After the backup');
    await answer(phone, 'An answer that will be gone');
    await expect(panel.getByText('An answer that will be gone')).toBeVisible();
    const port = await porch.stop();
    porch.restore(backup);
    await porch.open(port);
    await expect(phone.getByRole('log')).not.toContainText('After the backup');
    await expect(panel.getByText('An answer that will be gone')).toBeHidden();
    await expect(panel.getByText('Before the backup')).toBeVisible();
    await say('And on we go');
    await expect(phone.getByRole('log')).toContainText('And on we go');
  },
);

test(
  'a second server on the same data starts nothing, and says why',
  ownServer,
  async ({ porch }) => {
    const { code, said } = await porch.startAnother();
    expect(code).toBe(1);
    expect(said).toContain('Another Hello Porch already runs on the data');
    expect((await porch.ask<LinePage>('GET', '/api/line?group=waiting')).rows).toEqual([]);
  },
);

test('a house that cannot write says so on the screen', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  await phone.route('**/api/house', async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, json: { ...(await response.json()), canWrite: false } });
  });
  await phone.reload();
  await expect(phone.getByRole('alert')).toContainText('The house cannot write at the moment');
});

test('what is half typed is there again after a reload: the business, oneself, and what was sought', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Do you have ferns for a wedding?');
  await phone.goto(`${porch.origin}/house/business`);
  const name = phone.getByLabel('Name of the business');
  await name.fill('Quillfern and Daughters');
  await phone.reload();
  await expect(name).toHaveValue('Quillfern and Daughters');
  await phone.getByRole('button', { name: 'Save' }).click();
  await expect(phone.getByText('Saved')).toBeVisible();
  await phone.reload();
  await expect(name).toHaveValue('Quillfern and Daughters');
  await phone.goto(`${porch.origin}/house/me`);
  await phone.getByLabel('Public name').fill('Maren O.');
  await phone.goto(`${porch.origin}/line`);
  await phone.goto(`${porch.origin}/house/me`);
  await expect(phone.getByLabel('Public name')).toHaveValue('Maren O.');

  await phone.goto(`${porch.origin}/search`);
  await phone.getByLabel('Words, a name, an email').fill('weding fern');
  await phone.getByRole('link', { name: /ferns for a wedding/ }).click();
  await expect(phone.getByRole('log')).toContainText('ferns for a wedding');
  await phone.goBack();
  await expect(phone.getByLabel('Words, a name, an email')).toHaveValue('weding fern');
  await expect(phone.getByRole('link', { name: /ferns for a wedding/ })).toBeVisible();
  await phone.reload();
  await expect(phone.getByRole('link', { name: /ferns for a wedding/ })).toBeVisible();
});

test('whoever sends after their session has ended is asked to sign in, and it goes out then', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, say } = await visitorPhone(browser, porch);
  await say('Are you there?');
  await openVisitor(phone, 'Are you there?');
  // Nothing else that is asked meanwhile is to find it out first.
  let isSent = false;
  await phone.route('**/api/**', (route) => {
    isSent ||= route.request().method() === 'POST';
    return isSent ? route.continue() : route.abort();
  });
  await phone.context().clearCookies();
  await answer(phone, 'I am');
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await phone.getByLabel('Email').fill(owner.email);
  await phone.getByLabel('Password').fill(owner.password);
  await phone.getByRole('button', { name: 'Sign in' }).click();
  await expect(panel.getByText('I am', { exact: true })).toBeVisible();
});
