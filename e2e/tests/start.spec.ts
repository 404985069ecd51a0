import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import {
  expect,
  owner,
  ownServer,
  type Porch,
  signInOn,
  test,
  visitorPhone,
  watched,
} from '../kit/porch';

const phones = { serviceWorkers: 'allow' } as const;

/** Keeps the app itself from starting, as on a phone that is still at it; its service worker is at work. */
const withoutApp = async (page: Page): Promise<void> => {
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setScriptExecutionDisabled', { value: true });
};

/** Lets the app begin and come no further, until it is let go: React waits for its turn by messages. */
const heldUp = async (page: Page): Promise<() => Promise<void>> => {
  await page.addInitScript(() => {
    const held: (() => void)[] = [];
    let isHeld = true;
    const post = MessagePort.prototype.postMessage;
    MessagePort.prototype.postMessage = function (this: MessagePort, ...said: unknown[]) {
      const go = () => post.apply(this, said as [unknown]);
      if (isHeld) held.push(go);
      else go();
    };
    Object.assign(window, {
      letGo: () => {
        isHeld = false;
        for (const go of held) go();
      },
    });
  });
  return () => page.evaluate(() => (window as unknown as { letGo: () => void }).letGo());
};

/** Waits until the device has the app, and the line as it stands. */
const keepsTheLine = (page: Page): Promise<unknown> =>
  page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    const look = async (): Promise<unknown> => {
      // Whoever opens what is not there yet would make it, and in another form.
      const known = await indexedDB.databases();
      if (!known.some(({ name }) => name === 'porch-start')) return undefined;
      return new Promise((resolve) => {
        const asked = indexedDB.open('porch-start');
        asked.onsuccess = () => {
          const read = asked.result.transaction('kept').objectStore('kept').get('line');
          read.onsuccess = () => {
            asked.result.close();
            resolve(read.result);
          };
        };
      });
    };
    while (!JSON.stringify(await look())?.includes('data-talk')) {
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  });

/** Where something stands on the page. */
const boxesOf = async (page: Page, names: readonly (string | RegExp)[]) => {
  const boxes = [];
  for (const name of names) boxes.push(await page.getByText(name).first().boundingBox());
  return boxes;
};

const signedIn = async (page: Page, porch: Porch, visitors: readonly string[]): Promise<void> => {
  await signInOn(page, porch);
  for (const text of visitors) await expect(page.getByText(text)).toBeVisible();
  await keepsTheLine(page);
};

test('the last line stands readable before the app has started, where it will stand, and opens what is tapped', async ({
  browser,
  porch,
}) => {
  const context = await browser.newContext(phones);
  const phone = await watched(context);
  const wren = await visitorPhone(browser, porch);
  await wren.say('Is the bench open?');
  await signedIn(phone, porch, ['Is the bench open?']);
  const named = ['Answering now', 'Waiting', 'Is the bench open?', 'Search'];
  const live = await boxesOf(phone, named);
  const talkOn = async (page: Page) => {
    await expect(page.getByRole('log')).toContainText('Is the bench open?');
    return {
      back: await page.getByRole('button', { name: 'Back to the line' }).boundingBox(),
      heading: await page.getByRole('heading', { level: 1 }).boundingBox(),
      said: await page.getByRole('log').getByText('Is the bench open?').boundingBox(),
      field: await page.getByRole('textbox', { name: 'Your answer' }).boundingBox(),
    };
  };
  await phone.getByRole('link', { name: /^Visitor/ }).click();
  const liveTalk = await talkOn(phone);

  const early = await context.newPage();
  await withoutApp(early);
  await early.goto(`${porch.origin}/line`);
  await expect(early.getByText('Is the bench open?')).toBeVisible();
  expect(await boxesOf(early, named)).toEqual(live);
  await early.close();

  // Tapped while the app is still on its way, it opens once it is there.
  const slow = await watched(context);
  const letGo = await heldUp(slow);
  await slow.goto(`${porch.origin}/line`);
  await slow.getByText('Is the bench open?').click();
  await letGo();
  // And nothing of what stood there is left, in other screens neither.
  await expect.poll(() => talkOn(slow)).toEqual(liveTalk);
  await expect(slow.locator('#before')).toHaveCount(0);
});

test('what stands there early is gone once nobody is signed in', async ({ browser, porch }) => {
  const context = await browser.newContext(phones);
  const phone = await watched(context);
  const wren = await visitorPhone(browser, porch);
  await wren.say('For the team alone');
  await signedIn(phone, porch, ['For the team alone']);
  await phone.goto(`${porch.origin}/house`);
  await phone.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  const early = await context.newPage();
  await withoutApp(early);
  await early.goto(`${porch.origin}/line`);
  await expect(early.locator('#root')).toBeAttached();
  await expect(early.getByText('For the team alone')).toHaveCount(0);
});

test('signing in is readable and works before any of the app has come, and goes on in it without a jump', async ({
  browser,
  porch,
}) => {
  for (const colorScheme of ['light', 'dark'] as const) {
    const context = await browser.newContext({ colorScheme });
    const live = await watched(context);
    await live.goto(porch.origin);
    await expect(live.getByRole('button', { name: 'Forgot the password?' })).toBeVisible();
    const early = await context.newPage();
    await withoutApp(early);
    await early.goto(porch.origin);
    const placed = async (page: Page) => ({
      heading: await page.getByRole('heading', { name: 'Sign in' }).boundingBox(),
      email: await page.getByLabel('Email').boundingBox(),
      password: await page.getByLabel('Password').boundingBox(),
      button: await page.getByRole('button', { name: 'Sign in' }).boundingBox(),
      ground: await page
        .getByLabel('Email')
        .evaluate((field) => getComputedStyle(field).backgroundColor),
    });
    expect(await placed(early)).toEqual(await placed(live));
    await early.getByLabel('Email').fill(owner.email);
    await early.getByLabel('Password').fill('a wrong password');
    await early.getByRole('button', { name: 'Sign in' }).click();
    await expect(early).toHaveURL(/refused=sign-in-wrong/);
    await live.goto(early.url());
    await expect(
      live.getByText('Email and password do not fit together. Check both.'),
    ).toBeVisible();
  }

  // What is typed meanwhile is not typed twice.
  const slow = await watched(await browser.newContext());
  const letGo = await heldUp(slow);
  await slow.goto(porch.origin);
  await slow.getByLabel('Email').fill(owner.email);
  await slow.getByLabel('Password').fill(owner.password);
  await letGo();
  await expect(slow.getByRole('button', { name: 'Forgot the password?' })).toBeVisible();
  await expect(slow.getByLabel('Email')).toHaveValue(owner.email);
  await expect(slow.getByLabel('Password')).toBeFocused();
  await slow.keyboard.press('Enter');
  await expect(slow.getByRole('button', { name: /^Porch light: Answering now/ })).toBeVisible();
});

test('a sign-in that is pressed while the app takes over is sent, once, and not by a later sign-in', async ({
  browser,
  porch,
}) => {
  const begin = async (password: string) => {
    const page = await watched(await browser.newContext());
    const letGo = await heldUp(page);
    await page.goto(porch.origin);
    await page.getByLabel('Email').fill(owner.email);
    await page.getByLabel('Password').fill(password);
    await page.getByRole('button', { name: 'Sign in' }).hover();
    await page.mouse.down();
    return { page, letGo };
  };
  const wrong = await begin('a wrong password');
  await wrong.letGo();
  await expect(wrong.page.getByRole('button', { name: 'Forgot the password?' })).toBeVisible();
  await wrong.page.mouse.up();
  await expect(wrong.page.getByRole('alert')).toContainText('do not fit together');

  const { page, letGo } = await begin(owner.password);
  const sent: string[] = [];
  page.on('request', (request) => {
    if (request.url().endsWith('/api/sign-in')) sent.push(request.method());
  });
  await page.mouse.up();
  await letGo();
  await page.getByRole('link', { name: 'House' }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.getByRole('button', { name: 'Forgot the password?' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect(sent).toEqual(['POST']);
});

test(
  'a newer app is told of, and takes no half-written answer with it',
  ownServer,
  async ({ browser, porch }) => {
    const appDir = mkdtempSync(join(tmpdir(), 'app-'));
    cpSync('app/dist', appDir, { recursive: true });
    rmSync(join(appDir, 'worker.js.gz'));
    await porch.open(await porch.stop(), { APP_DIR: appDir });
    const context = await browser.newContext(phones);
    const phone = await watched(context);
    const wren = await visitorPhone(browser, porch);
    await wren.say('Hello');
    await signedIn(phone, porch, ['Hello']);
    await phone.getByRole('link', { name: /^Visitor/ }).click();
    await phone.getByRole('textbox', { name: 'Your answer' }).fill('Half a thought');
    // The server has another build from now on: its worker says another name, and the page is another one.
    const [build] = /[0-9a-f]{12}/.exec(readFileSync(join(appDir, 'index.html'), 'utf8')) ?? [];
    const renew = (file: string): void => {
      const path = join(appDir, file);
      writeFileSync(path, readFileSync(path, 'utf8').replaceAll(build ?? '', 'another-name'));
    };
    renew('worker.js');
    await phone.evaluate(async () => (await navigator.serviceWorker.ready).update());
    await expect(
      phone.getByText('A new version is here. What you are writing stays.'),
    ).toBeVisible();
    const reloaded = phone.waitForEvent('load');
    await phone.getByRole('button', { name: 'Take it' }).click();
    await reloaded;
    await expect(phone.getByRole('textbox', { name: 'Your answer' })).toHaveValue('Half a thought');
    rmSync(appDir, { recursive: true });
  },
);
