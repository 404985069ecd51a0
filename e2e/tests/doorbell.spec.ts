import type { Browser, BrowserContext, Page } from '@playwright/test';
import {
  expect,
  ownServer,
  type Porch,
  signInOn,
  test,
  unfold,
  visitorPhone,
  watched,
} from '../kit/porch';
import { alertsOn, ringBy } from '../kit/push';

const second = 1_000;

/** A device of the owner's with the real service worker, which rings. */
const ringingPhone = async (context: BrowserContext, porch: Porch, device: string) => {
  const bell = await ringBy(context, porch, device);
  const page = await watched(context);
  await signInOn(page, porch);
  await page.goto(`${porch.origin}/house/doorbell`);
  await page.getByRole('button', { name: 'Let this device ring' }).click();
  await expect(page.getByText('This device rings.')).toBeVisible();
  const came = async (count: number): Promise<void> => {
    await expect.poll(async () => (await bell.waiting()).length).toBeGreaterThanOrEqual(count);
    await bell.deliver(page);
  };
  return { page, bell, came };
};

/** Taps an alert, or a button of it, as the browser tells the service worker. */
const tap = async (page: Page, action = ''): Promise<void> => {
  const [worker] = page.context().serviceWorkers();
  if (!worker) throw new Error('there is no service worker');
  await worker.evaluate(async (which) => {
    const scope = self as unknown as {
      registration: ServiceWorkerRegistration;
      dispatchEvent(event: Event): void;
      NotificationEvent: new (kind: string, init: object) => Event;
    };
    const [notification] = await scope.registration.getNotifications();
    const init = { notification, action: which };
    scope.dispatchEvent(new scope.NotificationEvent('notificationclick', init));
  }, action);
};

const phones = { serviceWorkers: 'allow' } as const;

/** A phone with the real service worker, signed in, and a visitor on the website. */
const phoneAndVisitor = async (browser: Browser, porch: Porch) => {
  const context = await browser.newContext(phones);
  const phone = await watched(context);
  await signInOn(phone, porch);
  const { panel, say } = await visitorPhone(browser, porch);
  return { context, phone, panel, say };
};

test('a message rings both phones; tapped and answered on one, it is gone from the other', async ({
  browser,
  porch,
}) => {
  const first = await ringingPhone(await browser.newContext(phones), porch, 'first-phone');
  const other = await ringingPhone(await browser.newContext(phones), porch, 'second-phone');
  const { panel, say } = await visitorPhone(browser, porch);
  // Neither has the app in sight.
  await first.page.goto('about:blank');
  await other.page.goto('about:blank');
  await say('Is the bench open on Saturday?');
  for (const phone of [first, other]) {
    await phone.page.goto(`${porch.origin}/lamp.svg`);
    await phone.came(1);
    await expect.poll(() => alertsOn(phone.page)).toHaveLength(1);
  }
  const [alert] = await alertsOn(first.page);
  expect(alert).toMatchObject({
    title: 'Visitor on Houseplants',
    body: 'Is the bench open on Saturday?',
    actions: [
      { action: 'open', title: 'Open' },
      { action: 'back-soon', title: 'Back in 15 min' },
    ],
    hasIcon: true,
  });

  // The second message is on the same alert.
  await say('Or on Sunday?');
  await other.came(1);
  await expect
    .poll(async () => (await alertsOn(other.page))[0]?.body)
    .toMatch(/^Or on Sunday\?\n2 unread/);
  expect(await alertsOn(other.page)).toHaveLength(1);

  await first.page.goto(`${porch.origin}/line`);
  await expect(first.page).toHaveTitle(/^\(1\) Quillfern Nursery/);
  await tap(first.page);
  await expect(first.page.getByRole('log')).toContainText('Or on Sunday?');
  await first.page.getByRole('textbox', { name: 'Your answer' }).fill('Both, until four');
  await first.page.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(panel.getByText('Both, until four')).toBeVisible();
  await expect.poll(() => alertsOn(first.page)).toEqual([]);
  // What came of it stands there, the rest behind it.
  await expect(first.page.getByText(/^Maren Oduya looked /)).toBeVisible();
  await unfold(first.page);
  await expect(first.page.getByText(/^Rang Maren Oduya .*; Maren Oduya looked /)).toBeVisible();
  await other.came(1);
  await expect.poll(() => alertsOn(other.page)).toEqual([]);
});

test('a short reply from the alert reaches the visitor, and a light by the other button', async ({
  browser,
  porch,
}) => {
  const phone = await ringingPhone(await browser.newContext(phones), porch, 'first-phone');
  await phone.page.getByLabel('First button').selectOption('A short reply');
  await expect(phone.page.getByLabel('The short reply')).toBeVisible();
  await phone.page.getByLabel('The short reply').fill('With a customer, back in a moment');
  const saved = phone.page.waitForResponse('**/api/doorbell');
  await phone.page.getByRole('button', { name: 'Save' }).last().click();
  await saved;
  const { panel, say } = await visitorPhone(browser, porch);
  await phone.page.goto('about:blank');
  await say('Anybody there?');
  await phone.page.goto(`${porch.origin}/lamp.svg`);
  await phone.came(1);
  await expect.poll(() => alertsOn(phone.page)).toHaveLength(1);
  await tap(phone.page, 'back-soon');
  await expect(panel.getByText(/back/i).first()).toBeVisible();
  await say('Hello?');
  await phone.came(1);
  await expect.poll(() => alertsOn(phone.page)).toHaveLength(1);
  await tap(phone.page, 'short-reply');
  await expect(panel.getByText('With a customer, back in a moment')).toBeVisible();
});

test(
  'it rings on while nobody looks, over a restart, and stops with the first look',
  ownServer,
  async ({ browser, porch }) => {
    const phone = await ringingPhone(await browser.newContext(phones), porch, 'first-phone');
    const { say } = await visitorPhone(browser, porch);
    await say('Hello');
    await expect.poll(async () => (await phone.bell.arrivals()).length).toBe(1);
    // Killed between sending and noting it, it would rightly send that one again.
    const device = phone.page.getByRole('list', { name: 'Your devices' }).getByRole('listitem');
    await expect
      .poll(async () => {
        await phone.page.reload();
        return device.first().textContent();
      })
      .toContain('last rung');
    await phone.page.goto('about:blank');
    const port = await porch.kill();
    await porch.open(port);
    await porch.pass(60 * second);
    await expect.poll(async () => (await phone.bell.arrivals()).length).toBe(2);
    const causes = (await phone.bell.arrivals()).map(({ text }) => JSON.parse(text ?? '{}').cause);
    expect(causes).toEqual(['first', 'again']);
    await phone.page.goto(`${porch.origin}/line`);
    await phone.page.getByRole('link', { name: /^Visitor/ }).click();
    await unfold(phone.page);
    await expect(
      phone.page.getByText(/^Rang Maren Oduya 10:00, 10:01; Maren Oduya looked/),
    ).toBeVisible();
    // The look takes back what was rung; after that nothing more comes.
    await expect.poll(async () => (await phone.bell.arrivals()).length).toBe(3);
    await porch.pass(300 * second);
    const said = (await phone.bell.arrivals()).map(({ text }) => JSON.parse(text ?? '{}').say);
    expect(said).toEqual(['ring', 'ring', 'hush']);
  },
);

test('whoever has the conversation in sight is not rung for it', async ({ browser, porch }) => {
  const phone = await ringingPhone(await browser.newContext(phones), porch, 'first-phone');
  const { panel, say } = await visitorPhone(browser, porch);
  await say('Hello');
  await expect.poll(async () => (await phone.bell.arrivals()).length).toBe(1);
  await phone.page.goto(`${porch.origin}/line`);
  await phone.page.getByRole('link', { name: /^Visitor/ }).click();
  // Reading it takes the first alert back.
  await expect.poll(async () => (await phone.bell.arrivals()).length).toBe(2);
  await say('One more thing');
  await expect(phone.page.getByRole('log')).toContainText('One more thing');
  await expect(panel.getByText('Read', { exact: true })).toHaveCount(2);
  await porch.pass(10 * second);
  const said = (await phone.bell.arrivals()).map(({ text }) => JSON.parse(text ?? '{}').say);
  expect(said).toEqual(['ring', 'hush']);
});

test('what was answered without signal goes out once there is some, with the app closed', async ({
  browser,
  porch,
}) => {
  const { context, phone, panel, say } = await phoneAndVisitor(browser, porch);
  await say('Hello');
  await phone.getByRole('link', { name: /^Visitor/ }).click();
  await expect(phone.getByRole('log')).toContainText('Hello');
  await phone.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await context.setOffline(true);
  for (const text of ['From the van', 'And from the yard']) {
    await phone.getByRole('textbox', { name: 'Your answer' }).fill(text);
    await phone.getByRole('button', { name: 'Send', exact: true }).click();
  }
  await expect(phone.getByText('Waiting for signal')).toHaveCount(2);
  // No page of the app is open any more when the signal is back.
  await phone.goto('about:blank');
  await context.setOffline(false);
  const page = await context.newPage();
  await page.goto(`${porch.origin}/lamp.svg`);
  const session = await context.newCDPSession(page);
  const registered = new Promise<string>((resolve) => {
    session.on('ServiceWorker.workerRegistrationUpdated', ({ registrations }) => {
      const [ours] = registrations as { registrationId: string }[];
      if (ours) resolve(ours.registrationId);
    });
  });
  await session.send('ServiceWorker.enable');
  await session.send('ServiceWorker.dispatchSyncEvent', {
    origin: porch.origin,
    registrationId: await registered,
    tag: 'outbox',
    lastChance: false,
  });
  await expect(panel.getByText('And from the yard')).toBeVisible();
  await expect(panel.getByRole('list', { name: 'Conversation' })).toContainText(
    /From the van[\s\S]*And from the yard/,
  );
  // The next opening has nothing left to send.
  await page.goto(`${porch.origin}/line`);
  await page.getByRole('link', { name: /^Visitor/ }).click();
  await expect(page.getByRole('log')).toContainText('And from the yard');
  await expect(page.getByText('Waiting for signal')).toHaveCount(0);
  await expect(panel.getByText('And from the yard')).toHaveCount(1);
});

test('what another app shares goes to whom one says, to be read over before it is sent', async ({
  browser,
  porch,
}) => {
  const { phone, panel, say } = await phoneAndVisitor(browser, porch);
  await say('Can you send me a picture?');
  await expect(phone.getByRole('link', { name: /^Visitor/ })).toBeVisible();
  await phone.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await phone.reload();
  await phone.evaluate(async () => {
    const form = Object.assign(document.createElement('form'), {
      method: 'post',
      action: '/share',
      enctype: 'multipart/form-data',
    });
    const text = Object.assign(document.createElement('input'), {
      name: 'text',
      value: 'The big one',
    });
    const files = Object.assign(document.createElement('input'), { type: 'file', name: 'files' });
    const canvas = Object.assign(document.createElement('canvas'), { width: 40, height: 30 });
    const blob = await new Promise<Blob | null>((drawn) => canvas.toBlob(drawn));
    const chosen = new DataTransfer();
    if (blob) chosen.items.add(new File([blob], 'monstera.png', { type: 'image/png' }));
    files.files = chosen.files;
    form.append(text, files);
    document.body.append(form);
    form.submit();
  });
  await expect(phone.getByRole('heading', { name: 'For whom is this?' })).toBeVisible();
  await expect(phone.getByText('monstera.png')).toBeVisible();
  await phone.getByRole('button', { name: /^Visitor/ }).click();
  await expect(phone.getByRole('textbox', { name: 'Your answer' })).toHaveValue('The big one');
  await expect(phone.getByText('monstera.png')).toBeVisible();
  await expect(panel.getByText('The big one')).toHaveCount(0);
  // Half written, it stays over a reload, the picture too.
  await phone.reload();
  await expect(phone.getByText('monstera.png')).toBeVisible();
  await phone.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(panel.getByText('The big one')).toBeVisible();
  await expect(panel.getByRole('button', { name: 'Open picture monstera.png' })).toBeVisible();
});

test('the app installs: its manifest, icons and worker are as browsers ask for', async ({
  browser,
  porch,
}) => {
  const context = await browser.newContext(phones);
  const page = await watched(context);
  await signInOn(page, porch);
  const session = await context.newCDPSession(page);
  const { installabilityErrors } = await session.send('Page.getInstallabilityErrors');
  // A private window installs nothing, whatever the page is like.
  expect(installabilityErrors.filter(({ errorId }) => errorId !== 'in-incognito')).toEqual([]);
  const { errors, data } = await session.send('Page.getAppManifest');
  expect(errors).toEqual([]);
  const manifest = JSON.parse(data ?? '{}');
  expect(manifest).toMatchObject({
    id: '/',
    start_url: '/line',
    scope: '/',
    display: 'standalone',
  });
  for (const { src, sizes } of manifest.icons as { src: string; sizes: string }[]) {
    const size = await page.evaluate(async (address) => {
      const picture = await createImageBitmap(await (await fetch(address)).blob());
      return `${picture.width}x${picture.height}`;
    }, src);
    expect([src, size]).toEqual([src, sizes]);
  }
  await page.goto(`${porch.origin}/line?show=light`);
  await expect(page.getByRole('dialog', { name: 'Porch light' })).toBeVisible();
});

test('a device that was told no says how that is undone', async ({ browser, porch }) => {
  const context = await browser.newContext({ ...phones, permissions: [] });
  const page = await watched(context);
  await page.addInitScript(() => {
    Object.defineProperty(Notification, 'permission', { get: () => 'denied' });
  });
  await signInOn(page, porch);
  await page.goto(`${porch.origin}/house/doorbell`);
  const here = page.getByRole('region', { name: 'This device' });
  await expect(here.getByText(/Alerts are switched off/)).toBeVisible();
  await expect(here.getByRole('listitem').first()).toContainText('sign to the left of the address');
  await expect(here.getByRole('button')).toHaveCount(0);
});

test('a device that may not ring any more, or was removed elsewhere, is known to be none', async ({
  browser,
  porch,
}) => {
  const kept = await ringingPhone(await browser.newContext(phones), porch, 'first-phone');
  const context = await browser.newContext(phones);
  const other = await ringingPhone(context, porch, 'second-phone');
  const devices = kept.page.getByRole('list', { name: 'Your devices' }).getByRole('listitem');
  await kept.page.reload();
  await expect(devices).toHaveCount(2);
  // Withdrawn in the browser's settings while the app was closed.
  await other.page.goto('about:blank');
  await context.clearPermissions();
  await other.page.goto(`${porch.origin}/house/doorbell`);
  await expect(other.page.getByRole('button', { name: 'Let this device ring' })).toBeVisible();
  await expect
    .poll(async () => {
      await kept.page.reload();
      await expect(devices.first()).toBeVisible();
      return devices.count();
    })
    .toBe(1);

  // Removed from another device it does not come back by itself.
  const desk = await watched(await browser.newContext());
  await signInOn(desk, porch);
  await desk.goto(`${porch.origin}/house/doorbell`);
  await desk.getByRole('button', { name: /^Remove:/ }).click();
  await expect(desk.getByText('No device of yours rings yet.')).toBeVisible();
  await kept.page.reload();
  await expect(kept.page.getByRole('button', { name: 'Let this device ring' })).toBeVisible();
  await desk.reload();
  await expect(desk.getByText('No device of yours rings yet.')).toBeVisible();
});

test('somebody on a page that was chosen rings, though they have not written', async ({
  browser,
  porch,
}) => {
  const phone = await ringingPhone(await browser.newContext(phones), porch, 'first-phone');
  await phone.page.getByLabel('Somebody lands on one of these pages').fill('/delivery');
  const saved = phone.page.waitForResponse('**/api/doorbell');
  await phone.page.getByRole('button', { name: 'Save' }).first().click();
  await saved;
  const passer = await (await browser.newContext()).newPage();
  await passer.goto(`${porch.site}/delivery`);
  await expect(passer.getByRole('button', { name: /Write to us/ })).toBeVisible();
  await expect.poll(async () => (await phone.bell.arrivals()).length).toBe(1);
  const [landed] = await phone.bell.arrivals();
  expect(JSON.parse(landed?.text ?? '{}')).toMatchObject({ cause: 'landed', talk: null });
});
