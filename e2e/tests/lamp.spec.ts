import type { Page } from '@playwright/test';
import { answer, expect, ownerPhone, signInOn, test, visitorPhone, watched } from '../kit/porch';

test('the lamp is seen at once on the plate and in the panel, and comes back by itself', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const passing = await watched(await browser.newContext());
  await passing.goto(porch.site);
  const plate = passing.getByRole('button', { name: /^Quillfern Nursery .*Write to us/ });
  await expect(plate).toHaveAccessibleName(/Answering now/);
  const { panel } = await visitorPhone(browser, porch);

  await phone.getByRole('button', { name: /^Porch light/ }).click();
  await phone.getByRole('button', { name: '30 min' }).click();
  await expect(phone.getByRole('button', { name: /Porch light: Back at 10:30/ })).toBeVisible();
  await expect(plate).toHaveAccessibleName(/Back at /);
  await expect(panel.getByText(/^Back at /)).toBeVisible();

  await porch.pass(31 * 60_000);
  await expect(phone.getByRole('button', { name: /Porch light: Answering now/ })).toBeVisible();
  await expect(plate).toHaveAccessibleName(/Answering now/);
  await expect(panel.getByText('Answering now')).toBeVisible();
});

test('the light is lit by hand before its time, and what it shows already is not offered', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  const lamp = phone.getByRole('button', { name: /^Porch light/ });
  const goDark = phone.getByRole('button', { name: 'Until I light it' });
  const answerAgain = phone.getByRole('button', { name: 'Go by the hours again' });
  await lamp.click();
  await expect(goDark).toBeVisible();
  await expect(answerAgain).toBeHidden();
  await goDark.click();
  await expect(lamp).toHaveAccessibleName(/Dark until you light it/);
  await lamp.click();
  await expect(answerAgain).toBeVisible();
  await expect(goDark).toBeHidden();
  await answerAgain.click();
  await expect(lamp).toHaveAccessibleName(/Answering now/);
});

test('a time is picked, and none is said to be missing', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('button', { name: /^Porch light/ }).click();
  await phone.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(phone.getByRole('alert')).toContainText('Choose a time first');
  await phone.getByLabel('Back at').fill('14:15');
  await phone.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(phone.getByRole('button', { name: /Porch light: Back at 14:15/ })).toBeVisible();
});

test('while nobody is in, a note is taken, with a way to reach the person, until it is answered', async ({
  browser,
  porch,
}) => {
  const phone = await ownerPhone(browser, porch);
  await phone.getByRole('button', { name: /^Porch light/ }).click();
  await phone.getByRole('button', { name: 'Until I light it' }).click();
  const { panel, say, sayWho } = await visitorPhone(browser, porch);
  await expect(panel.getByText('Nobody is in right now')).toBeVisible();
  await say('Please keep two bonsai for me');
  await sayWho();
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByRole('alert')).toContainText('Give an email or a phone number');
  await panel.getByLabel('Phone', { exact: true }).fill('07700 900123');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByText('We can reach you at 07700 900123')).toBeVisible();

  await expect(phone.getByRole('button', { name: 'Left a note, 1' })).toBeVisible();
  await phone.getByRole('link', { name: /two bonsai/ }).click();
  await answer(phone, 'They are yours');
  await phone.getByRole('button', { name: 'Back to the line' }).click();
  await expect(phone.getByRole('button', { name: 'Left a note, 0' })).toBeVisible();
});

/** Listens at the page's loudspeaker: how many tones have begun, and how loud it ever was. */
const listenIn = async (page: Page): Promise<void> => {
  await page.addInitScript(() => {
    const heard = { tones: 0, loudest: 0 };
    Object.assign(window, { heard });
    const connect = AudioNode.prototype.connect as (to: AudioNode) => AudioNode;
    const begin = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function start(at) {
      heard.tones += 1;
      return begin.call(this, at);
    };
    const tap = function tap(this: AudioNode, to: AudioNode): AudioNode {
      if (to === this.context.destination) {
        const ear = this.context.createAnalyser();
        connect.call(this, ear);
        const samples = new Float32Array(ear.fftSize);
        const look = (): void => {
          ear.getFloatTimeDomainData(samples);
          heard.loudest = Math.max(heard.loudest, ...samples.map(Math.abs));
          requestAnimationFrame(look);
        };
        look();
      }
      return connect.call(this, to);
    };
    AudioNode.prototype.connect = tap as typeof AudioNode.prototype.connect;
  });
};
const heardOn = (page: Page) =>
  page.evaluate(() => (window as unknown as { heard: { tones: number; loudest: number } }).heard);

test('a new message sounds, unless that is turned off', async ({ browser, porch }) => {
  const context = await browser.newContext();
  const phone = await watched(context);
  await listenIn(phone);
  await signInOn(phone, porch);
  const { say } = await visitorPhone(browser, porch);
  await say('Ring');
  await expect.poll(async () => (await heardOn(phone)).tones).toBe(2);
  await expect.poll(async () => (await heardOn(phone)).loudest).toBeGreaterThan(0.02);
  await phone.getByRole('link', { name: 'House', exact: true }).click();
  await phone.getByRole('switch', { name: 'Sound when somebody writes' }).click();
  await say('Silence');
  await expect(phone.getByRole('link', { name: 'The line 1' })).toBeVisible();
  await phone.getByRole('link', { name: /The line/ }).click();
  await expect(phone.getByRole('link', { name: /Silence/ })).toBeVisible();
  expect((await heardOn(phone)).tones).toBe(2);
});
