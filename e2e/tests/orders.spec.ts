import type { NetworkDoor } from '@porch/contract/doors';
import { expectClean } from '../kit/clean';
import { expect, openVisitor, ownerPhone, test, visitorPhone } from '../kit/porch';

const table = [
  'Order no;E-mail;Status;Delivery date;Tracking',
  'QF-1101;wren@post.example;Packed;01.12.2026;https://carrier.example/1101',
  'QF-1102;;Packed;;',
].join('\r\n');

test('orders are read in from a table, and looked up at night by number and contact', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await screen.getByRole('link', { name: 'House', exact: true }).click();
  await screen.getByRole('link', { name: /^Orders/ }).click();
  await expect(screen.getByText('No orders yet.')).toBeVisible();
  const choosing = screen.waitForEvent('filechooser');
  await screen.getByRole('button', { name: 'Read in a CSV' }).click();
  await (await choosing).setFiles({
    name: 'orders.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(table),
  });
  await expect(screen.getByText('1 order can be looked up.')).toBeVisible();
  await expect(screen.getByText(/^Row 3 \(QF-1102\): it has neither an email/)).toBeVisible();
  await expectClean(screen, 'orders');
  await porch.ask('PUT', '/api/lamp', { state: 'dark', until: null });

  const { panel, page } = await visitorPhone(browser, porch);
  await panel.getByRole('button', { name: 'Where is my order?' }).click();
  const number = panel.getByRole('textbox', { name: /^Order number/ });
  const contact = panel.getByRole('textbox', { name: /^Email or phone of the order/ });
  await expect(number).toBeFocused();
  await number.fill('1101');
  await contact.fill('eve@post.example');
  await panel.getByRole('button', { name: 'Find it' }).click();
  await expect(panel.getByRole('alert')).toContainText('There is no order with this number');
  await number.fill('qf 1101');
  await contact.fill('Wren@post.example');
  await expectClean(page, 'an order that is looked up');
  await panel.getByRole('button', { name: 'Find it' }).click();
  const roll = panel.getByRole('list', { name: 'Conversation' });
  await expect(roll).toContainText('Order QF-1101: Packed');
  await expect(roll).toContainText('Expected on Tuesday 1 December');
  await expect(number).toHaveCount(0);
  // Read where it stands, and asked for nothing more: nobody was written to.
  const answer = roll.getByRole('listitem').filter({ hasText: 'Order QF-1101: Packed' });
  await expect(answer).toBeFocused();
  await expect(answer).toBeInViewport();
  await expect(panel.getByText('May we know who writes?')).toHaveCount(0);
  // Nobody has to answer it.
  await screen.goto(`${porch.origin}/line`);
  await expect(screen.getByRole('button', { name: 'Wrapped up, 1' })).toBeVisible();
});

test('an order is added, found, corrected and deleted by hand; deleting is undone', async ({
  browser,
  porch,
}) => {
  const screen = await ownerPhone(browser, porch);
  await screen.goto(`${porch.origin}/house/orders`);
  await screen.getByRole('button', { name: 'Add an order' }).click();
  await screen.getByLabel('Order number').fill('QF/77');
  await screen.getByLabel('Where it is').fill('Packed');
  await screen.getByRole('button', { name: 'Save' }).click();
  await expect(screen.getByRole('alert')).toContainText('Enter an email or a phone number.');
  // What was typed is there after a reload.
  await screen.reload();
  await expect(screen.getByLabel('Order number')).toHaveValue('QF/77');
  await screen.getByLabel('Customer’s email').fill('wren@post.example');
  await expectClean(screen, 'an order by hand');
  await screen.getByRole('button', { name: 'Save' }).click();
  await expect(screen.getByText('1 order can be looked up.')).toBeVisible();

  await screen.getByLabel('Find by number, email or phone').fill('nobody@post.example');
  await expect(screen.getByText('No order found for “nobody@post.example”.')).toBeVisible();
  await screen.getByLabel('Find by number, email or phone').fill('qf7');
  await screen.getByRole('link', { name: 'Change order QF/77' }).click();
  await screen.getByLabel('Where it is').fill('On the van');
  await screen.getByRole('button', { name: 'Save' }).click();
  const row = screen.getByRole('link', { name: 'Change order QF/77' });
  await expect(row).toContainText('On the van');
  await row.click();
  await screen.getByRole('button', { name: 'Delete order' }).click();
  await expect(screen.getByText('No orders yet.')).toBeVisible();
  await screen.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toContainText('On the van');
});

test('an order stands beside the conversation and is put into the answer; the shop is asked too', async ({
  browser,
  porch,
}) => {
  await porch.ask<NetworkDoor>('PUT', '/api/orders/shop', { url: `${porch.site}/shop/orders` });
  const { key } = await porch.ask<{ key: string }>('GET', '/api/orders/shop/key');
  await fetch(`${porch.site}/shop`, { method: 'POST', body: new URLSearchParams({ key }) });
  const { panel, say } = await visitorPhone(browser, porch);
  await panel.getByRole('button', { name: 'Where is my order?' }).click();
  await panel.getByRole('textbox', { name: /^Order number/ }).fill('QF-2001');
  await panel.getByRole('textbox', { name: /^Email or phone/ }).fill('wren@post.example');
  await panel.getByRole('button', { name: 'Find it' }).click();
  await expect(panel.getByText(/Packed, waiting for the van/)).toBeVisible();

  await porch.give('/api/orders/table', table);
  await say('And what about QF-1101?');
  const screen = await ownerPhone(browser, porch, { viewport: { width: 1280, height: 800 } });
  await openVisitor(screen, 'And what about QF-1101?');
  await expect(screen.getByRole('complementary')).toContainText('QF-1101 · Packed');
  // They named it and showed nothing: it is not put in by one tap.
  await screen.getByRole('button', { name: 'Put order QF-1101 into the answer' }).click();
  await expect(screen.getByRole('textbox', { name: 'Your answer' })).toHaveValue('');
  await screen.getByRole('button', { name: 'Put order QF-1101 into the answer anyway' }).click();
  await expect(screen.getByRole('textbox', { name: 'Your answer' })).toHaveValue(
    'Order QF-1101: Packed\nExpected on Tuesday 1 December\nhttps://carrier.example/1101',
  );
  await expectClean(screen, 'an order beside the conversation');
});
