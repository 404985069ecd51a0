import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { attach, expect, ownerPhone, test, visitorPhone } from '../kit/porch';

const picture = () =>
  sharp({ create: { width: 900, height: 600, channels: 3, background: '#3f7d4e' } })
    .jpeg()
    .toBuffer();

test('pictures go both ways, shown in place and opened large', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, page } = await visitorPhone(browser, porch);
  await attach(page, panel, {
    name: 'sick-leaf.png',
    mimeType: 'image/jpeg',
    buffer: await picture(),
  });
  await panel.getByRole('button', { name: 'Send' }).click();
  await panel.getByRole('button', { name: 'Open picture sick-leaf.jpg' }).click();
  await expect(panel.getByRole('dialog', { name: 'sick-leaf.jpg' }).getByRole('img')).toBeVisible();
  await panel.getByRole('button', { name: 'Close picture' }).click();

  await phone.getByRole('link', { name: /sick-leaf/ }).click();
  await phone.getByRole('button', { name: 'Open picture sick-leaf.jpg' }).click();
  const large = phone.getByRole('img', { name: 'sick-leaf.jpg' });
  await expect(large).toBeVisible();
  await phone.keyboard.press('Escape');
  await expect(large).toBeHidden();

  await attach(phone, phone, {
    name: 'healthy.jpg',
    mimeType: 'image/jpeg',
    buffer: await picture(),
  });
  await phone.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(panel.getByRole('button', { name: 'Open picture healthy.jpg' })).toBeVisible();
});

test('any other file is only ever downloaded, as it came', async ({ browser, porch }) => {
  const phone = await ownerPhone(browser, porch);
  const { panel, page } = await visitorPhone(browser, porch);
  const words = '<script>alert(1)</script>';
  await attach(page, panel, {
    name: 'order.html',
    mimeType: 'text/html',
    buffer: Buffer.from(words),
  });
  await panel.getByRole('button', { name: 'Send' }).click();
  const fromPanel = page.waitForEvent('download');
  await panel.getByRole('button', { name: /^Download order.html/ }).click();
  expect(readFileSync(await (await fromPanel).path(), 'utf8')).toBe(words);
  await phone.getByRole('link', { name: /order.html/ }).click();
  const fromPhone = phone.waitForEvent('download');
  await phone.getByRole('link', { name: /^Download order.html/ }).click();
  expect(readFileSync(await (await fromPhone).path(), 'utf8')).toBe(words);
});

test('a picture that is a program is refused in plain words, and can be taken out', async ({
  browser,
  porch,
}) => {
  const { panel, page, say } = await visitorPhone(browser, porch);
  await attach(page, panel, {
    name: 'holiday.png',
    mimeType: 'image/png',
    buffer: Buffer.from('#!/bin/sh\nrm -rf /'),
  });
  await panel.getByRole('button', { name: 'Send' }).click();
  await expect(panel.getByRole('alert')).toContainText('cannot be read as one. It was not sent');
  await say('Then in words');
  await expect(panel.getByRole('listitem').filter({ hasText: 'Then in words' })).toContainText(
    'Sent',
  );
  await panel.getByRole('button', { name: 'Delete' }).click();
  await expect(panel.getByText('holiday.png')).toHaveCount(0);
});

test('a file over ten megabytes is refused before it is sent', async ({ browser, porch }) => {
  const { panel, page } = await visitorPhone(browser, porch);
  await attach(page, panel, {
    name: 'film.mp4',
    mimeType: 'video/mp4',
    buffer: Buffer.alloc(10 * 1024 * 1024 + 1),
  });
  await expect(panel.getByRole('alert')).toContainText('larger than 10 MB');
});
