import { keep, kept } from '@porch/client/keeping';
import type { PanelPageData } from '@porch/contract/visitor';
import { isVisitorToken } from '@porch/core/ids';

/** What the page was served with. */
export const readDoor = (): PanelPageData =>
  JSON.parse(document.getElementById('door')?.textContent ?? '{}') as PanelPageData;

const toBase64Url = (bytes: Uint8Array): string =>
  btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '');

/** The visitor's token: made here, and stored only once there is a conversation to come back to. */
export const createToken = (door: string) => {
  const key = `porch:token:${door}`;
  const known = kept(key);
  const token =
    known && isVisitorToken(known)
      ? known
      : toBase64Url(crypto.getRandomValues(new Uint8Array(32)));
  return { token, store: () => keep(key, token) };
};
