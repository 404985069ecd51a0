import type { Locator, Page } from '@playwright/test';
import { expectClean } from '../kit/clean';
import {
  answer,
  expect,
  openPanel,
  openVisitor,
  ownerPhone,
  shifting,
  test,
  visitorPhone,
  watched,
} from '../kit/porch';

const plateOn = (page: Page) =>
  page.getByRole('button', { name: /^Quillfern Nursery .*Write to us/ });

for (const path of ['/strict', '/hostile', '/one-page', '/twice', '/signed-in']) {
  test(`the door stands on ${path}, moves nothing, and takes a message`, async ({
    browser,
    porch,
  }) => {
    const context = await browser.newContext();
    const { page, shifts } = await shifting(context);
    await page.goto(porch.site + path);
    await expect(plateOn(page)).toHaveCount(1);
    const box = await plateOn(page).boundingBox();
    expect(box?.width).toBeGreaterThan(90);
    expect((box?.x ?? 0) + (box?.width ?? 0)).toBeGreaterThan(340);
    expect(await shifts()).toEqual([]);
    expect(await context.cookies()).toEqual([]);
    const { panel, say } = await openPanel(page);
    await say('Hello from here');
    await expect(panel.getByText('Hello from here')).toBeVisible();
    await expect(panel.getByText('Sent').or(panel.getByText('Arrived'))).toBeVisible();
  });
}

test('a page notices nothing when our server is down', async ({ browser, porch }) => {
  const page = await watched(await browser.newContext());
  await page.goto(`${porch.site}/unreachable`);
  await expect(page.getByRole('heading', { name: 'Server down' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  await expect(page.locator('hello-porch')).toHaveCount(0);
  // Nor when only the configuration cannot be had.
  await page.route('**/configuration.js*', (route) => route.abort());
  await page.goto(porch.site);
  await page.waitForLoadState('networkidle');
  await expect(page.locator('hello-porch')).toHaveCount(0);
});

test('the door comes and goes with the address of a site that never loads anew', async ({
  browser,
  porch,
}) => {
  await porch.dress((dress) => {
    dress.where.pages = { mode: 'only', these: ['/one-page/ferns'] };
  });
  const page = await watched(await browser.newContext());
  await page.goto(`${porch.site}/one-page`);
  await expect(page.locator('hello-porch')).toHaveCount(1);
  await expect(plateOn(page)).toBeHidden();
  await page.getByRole('link', { name: 'Ferns' }).click();
  await expect(plateOn(page)).toBeVisible();
  await page.getByRole('link', { name: 'About' }).click();
  await expect(plateOn(page)).toBeHidden();
});

test('the door stands only in the countries it is for, by the zone that the browser states', async ({
  browser,
  porch,
}) => {
  await porch.dress((dress) => {
    dress.where.countries = { mode: 'only', these: ['GB', 'IE'] };
  });
  const seenIn = async (timezoneId: string) => {
    const page = await watched(await browser.newContext({ timezoneId }));
    await page.goto(porch.site);
    await expect(page.locator('hello-porch')).toHaveCount(1);
    return plateOn(page).isVisible();
  };
  expect(await seenIn('Europe/London')).toBe(true);
  expect(await seenIn('Europe/Dublin')).toBe(true);
  expect(await seenIn('Europe/Paris')).toBe(false);
});

test('it peeks once a visit, in the page’s own language', async ({ browser, porch }) => {
  await porch.dress((dress) => {
    dress.where.manners = [{ pattern: '*', manner: 'peek', afterSeconds: 0 }];
  });
  const page = await watched(await browser.newContext());
  await page.goto(`${porch.site}/deutsch`);
  await expect(page.getByText('Können wir helfen? Schreiben Sie uns hier.')).toBeVisible();
  await page.getByRole('button', { name: 'Diese Zeile ausblenden' }).click();
  await page.goto(porch.site);
  await expect(plateOn(page)).toBeVisible();
  await expect(page.getByText('Can we help?')).toHaveCount(0);
});

test('a panel that opens for an answer takes the keyboard from nobody', async ({
  browser,
  porch,
}) => {
  await porch.dress((dress) => {
    dress.onAnswer = 'open';
  });
  const phone = await ownerPhone(browser, porch);
  const page = await watched(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  await page.goto(porch.site);
  const { panel, say } = await openPanel(page);
  const message = panel.getByRole('textbox', { name: 'Your message' });
  // Whoever opens it themselves goes on in it.
  await expect(message).toBeFocused();
  await say('Is it there?');
  await openVisitor(phone, 'Is it there?');
  await panel.getByRole('button', { name: 'Close' }).click();
  await page.evaluate(() => {
    const search = document.createElement('input');
    search.setAttribute('aria-label', 'Search the shop');
    document.querySelector('main')?.prepend(search);
    search.focus();
  });
  await answer(phone, 'It is, come by');
  await expect(panel.getByText('It is, come by')).toBeVisible();
  await expect(phone.getByRole('log').getByText('Read', { exact: true })).toBeVisible();
  await page.keyboard.type('fern');
  const search = page.getByRole('textbox', { name: 'Search the shop' });
  await expect(search).toHaveValue('fern');
  await expect(search).toBeFocused();
});

test('text is laid out from right to left where it is written so', async ({ browser, porch }) => {
  await porch.dress((dress) => {
    dress.texts = {
      ar: {
        'plate.lit': 'نجيب الآن',
        'title.lit': 'نجيب الآن',
        'field.lit': 'رسالتك',
        open: 'اكتب إلى {business}. {state}',
      },
    };
  });
  const page = await watched(await browser.newContext());
  await page.goto(`${porch.site}/arabi`);
  await page.getByRole('button', { name: /اكتب إلى Quillfern/ }).click();
  const panel = page.frameLocator('iframe');
  const field = panel.getByRole('textbox', { name: 'رسالتك' });
  await expect(field).toBeVisible();
  expect(await field.evaluate((area) => getComputedStyle(area).direction)).toBe('rtl');
  // What comes last in what is written from the left is at its left here.
  const send = await panel.getByRole('button', { name: 'Send' }).boundingBox();
  const add = await panel.getByRole('button', { name: 'Add a picture or file' }).boundingBox();
  expect((send?.x ?? 0) + (send?.width ?? 0)).toBeLessThan(add?.x ?? 0);
});

test('a website says who is signed in, and they are not asked again', async ({
  browser,
  porch,
}) => {
  const page = await watched(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  await page.goto(`${porch.site}/signed-in`);
  await page.getByRole('button', { name: 'Ask us' }).click();
  const panel = page.frameLocator('iframe');
  await panel.getByRole('textbox', { name: 'Your message' }).fill('Where is my order?');
  await panel.getByRole('button', { name: 'Send' }).click();
  // No mail goes out of this house: nothing is promised by it.
  await expect(panel.getByText(/^Thank you/)).toBeVisible();
  await page.getByRole('button', { name: 'Not now' }).click();
  await expect(plateOn(page)).toBeVisible();
});

/** What the browser did on a page, piece by piece: how long its thread was busy with it, not how long a clock ran. */
interface Traced {
  name: string;
  tdur?: number;
  args?: { data?: { url?: string; fileName?: string } };
}

test('the loader keeps the page’s main thread for less than 10 ms before anything is opened', async ({
  browser,
  porch,
}) => {
  const page = await (await browser.newContext()).newPage();
  await browser.startTracing(page, { categories: ['devtools.timeline'] });
  await page.goto(porch.site);
  await expect(plateOn(page)).toBeVisible();
  await page.waitForLoadState('networkidle');
  const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: Traced[] };
  const pieces = trace.traceEvents
    .filter(({ name, args }) => {
      const from = args?.data?.url ?? args?.data?.fileName ?? '';
      return (
        /EvaluateScript|FunctionCall|FireAnimationFrame|TimerFire/.test(name) &&
        /loader\.js/.test(from)
      );
    })
    .map(({ tdur }) => (tdur ?? 0) / 1_000);
  expect(pieces.length).toBeGreaterThan(0);
  expect(Math.max(...pieces)).toBeGreaterThan(0);
  expect(Math.max(...pieces)).toBeLessThan(10);
});

/** On how many lines a text stands. */
const linesOf = (text: Locator): Promise<number> =>
  text.evaluate((element) => {
    const range = document.createRange();
    range.selectNodeContents(element);
    return new Set([...range.getClientRects()].map(({ top }) => Math.round(top))).size;
  });

for (const shape of ['upright', 'lintel', 'latch'] as const) {
  test(`on a phone the ${shape} plate covers little, and says whether somebody is in`, async ({
    browser,
    porch,
  }) => {
    await porch.dress((dress) => {
      dress.look = { ...dress.look, plate: shape, textSize: 'large' };
    });
    const phone = await watched(await browser.newContext());
    await phone.goto(porch.site);
    const plate = plateOn(phone);
    await expect(plate).toBeVisible();
    await expect(plate.getByText('Answering now')).toBeVisible();
    expect(await linesOf(plate.getByText('Answering now'))).toBe(1);
    const box = await plate.boundingBox();
    expect(box?.height).toBeLessThanOrEqual(64);
    expect(box?.height).toBeGreaterThanOrEqual(48);
    expect(box?.width).toBeLessThanOrEqual(390 * 0.55);
    // Only where the owner wants it does the large one stand there.
    await porch.dress((dress) => {
      dress.look = { ...dress.look, onPhones: 'usual' };
    });
    const second = await watched(await browser.newContext());
    await second.goto(porch.site);
    await expect(plateOn(second)).toBeVisible();
    if (shape !== 'lintel') {
      expect((await plateOn(second).boundingBox())?.height).toBeGreaterThan(100);
    }
  });
}

/** Words of a text that stand on more than one line. */
const brokenWords = (text: Locator): Promise<string[]> =>
  text.evaluate((element) => {
    const node = element.firstChild as Text;
    return [...node.data.matchAll(/\S+/g)].flatMap(({ 0: word, index }) => {
      const range = document.createRange();
      range.setStart(node, index);
      range.setEnd(node, index + word.length);
      return range.getClientRects().length > 1 ? [word] : [];
    });
  });

test('an answer shows its first words beside the closed plate, where the owner wants that', async ({
  browser,
  porch,
}) => {
  await porch.dress((dress) => {
    dress.onAnswer = 'show';
    dress.links = [
      { id: 'link-find-us', glyph: 'map', label: 'Find us', url: 'https://quillfern.example/map' },
    ];
  });
  const phone = await ownerPhone(browser, porch);
  const { page, panel, say } = await visitorPhone(browser, porch);
  await expect(panel.getByRole('link', { name: 'Find us' })).toHaveAttribute(
    'href',
    'https://quillfern.example/map',
  );
  await say('Is it still there?');
  await openVisitor(phone, 'Is it still there?');
  await panel.getByRole('button', { name: 'Close' }).click();
  await answer(phone, 'It is, and it has just been watered');
  const glance = panel.getByRole('button', { name: /It is, and it has just been watered/ });
  await expect(glance).toBeVisible();
  await expect(plateOn(page)).toHaveAccessibleName(/New messages: 1/);
  const box = await page.locator('iframe').boundingBox();
  expect(box?.height).toBeLessThan(100);
  // Over the plate, on a phone and on a wide screen: nobody presses one where the other is meant.
  for (const width of [320, 390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    const [plate, answered] = [
      await plateOn(page).boundingBox(),
      await page.locator('iframe').boundingBox(),
    ];
    if (!plate || !answered) throw new Error('one of them is not there');
    expect(answered.y + answered.height).toBeLessThanOrEqual(plate.y);
    expect(answered.x + answered.width).toBeCloseTo(plate.x + plate.width, 0);
    // How many came in takes no letter from a word of the plate's.
    expect(await brokenWords(plateOn(page).locator('.more'))).toEqual([]);
  }
  // What was said is in our frame only: the page around it never gets to read it.
  expect(await page.evaluate(() => document.documentElement.innerHTML)).not.toContain('watered');
  await expect(phone.getByRole('log').getByText('Read', { exact: true })).toHaveCount(0);
  await glance.click();
  await expect(panel.getByRole('textbox', { name: 'Your message' })).toBeVisible();
  await expect(phone.getByRole('log').getByText('Read', { exact: true })).toBeVisible();
});

test('pages for a developer open without signing in, and lead nowhere but to what is there', async ({
  browser,
  porch,
}) => {
  const page = await watched(await browser.newContext());
  for (const name of ['bridge', 'orders', 'phone', 'text']) {
    await page.goto(`${porch.origin}/developers/${name}.html`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expectClean(page, `the page ${name} for a developer`);
    const hrefs = await page
      .getByRole('link')
      .evaluateAll((links) => links.map((link) => (link as HTMLAnchorElement).href));
    for (const href of hrefs.filter((one) => one.startsWith(porch.origin))) {
      expect((await page.request.get(href)).ok()).toBe(true);
    }
  }
  await page.goto(`${porch.origin}/developers/orders.html`);
  const program = page.getByRole('link', { name: 'orders.mjs' });
  const href = await program.evaluate((link) => (link as HTMLAnchorElement).href);
  expect(await (await page.request.get(href)).text()).toContain('createHmac');
});
