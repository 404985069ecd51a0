import type { Browser, Page } from '@playwright/test';
import type { NetworkDoor } from '@porch/contract/doors';
import { expect, networkAccounts, type Porch, watched } from './porch';

const given = {
  text: { path: 'texts', more: { number: '+447700900100', account: 'quillfern' } },
  pigeonpost: { path: 'pigeonpost', more: { number: '+447700900101' } },
  wavelet: { path: 'wavelet', more: { page: 'quillfern' } },
  tintype: { path: 'tintype', more: { account: 'quillfern.nursery' } },
  phone: { path: 'exchange', more: { number: '+442079460100', say: 'Nobody is in.' } },
  townfinder: { path: 'townfinder', more: { listing: 'quillfern-nursery' } },
} as const;
export type NetworkName = keyof typeof given;

/** Opens a door to one of the street's networks at once, both ways; on the screens it has a test of its own. */
export const openDoorTo = async (
  porch: Porch,
  kind: NetworkName,
  name: string,
): Promise<NetworkDoor> => {
  const { path, more } = given[kind];
  const door = await porch.ask<NetworkDoor>('POST', '/api/network-doors', {
    kind,
    name,
    given: { url: `${porch.site}/${path}`, key: networkAccounts[path].key, ...more },
  });
  const { address = '', word = '' } = door.shows;
  const form = new URLSearchParams({ address, word, account: networkAccounts[path].account });
  const answer = await fetch(`${porch.site}/${path}/connect`, { method: 'POST', body: form });
  expect(await answer.text()).not.toContain('Not connected');
  return door;
};

/** What goes wrong with a network from now on, by the words of its page. */
export const letGoWrong = async (porch: Porch, kind: NetworkName, fault: string): Promise<void> => {
  await fetch(`${porch.site}/${given[kind].path}/fault`, {
    method: 'POST',
    body: new URLSearchParams({ fault }),
  });
};

/** The phone of somebody on a network, by what the network calls them. */
export const customersPhone = async (
  browser: Browser,
  porch: Porch,
  kind: NetworkName,
  id: string,
) => {
  const page: Page = await watched(await browser.newContext());
  await page.goto(`${porch.site}/${given[kind].path}/phone/${encodeURIComponent(id)}`);
  const roll = page.getByRole('list').first();
  return {
    page,
    roll,
    say: async (text: string): Promise<void> => {
      await page.getByLabel('Write to the business').fill(text);
      await page.getByRole('button', { name: 'Send', exact: true }).click();
    },
    press: (name: string): Promise<void> => page.getByRole('button', { name }).first().click(),
  };
};
