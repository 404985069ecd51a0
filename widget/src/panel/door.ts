import { keep, kept } from '@porch/client/keeping';
import type { PanelPageData } from '@porch/contract/visitor';
import { isId, isVisitorToken } from '@porch/core/ids';
import { nanoid } from 'nanoid';

/** What the page was served with. */
export const readDoor = (): PanelPageData =>
  JSON.parse(document.getElementById('door')?.textContent ?? '{}') as PanelPageData;

const toBase64Url = (bytes: Uint8Array): string =>
  btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '');

/** The token that some tab of this visitor's has stored; null while nobody has said anything. */
const storedToken = (key: string): string | null => {
  const stored = kept(key);
  return stored && isVisitorToken(stored) ? stored : null;
};

/** The visitor's token: made here, and stored only once there is a conversation to come back to. */
export const createToken = (door: string) => {
  const key = `porch:token:${door}`;
  let token = storedToken(key) ?? toBase64Url(crypto.getRandomValues(new Uint8Array(32)));
  return {
    now: (): string => token,
    store: (): void => keep(key, token),
    /** Takes the one that another tab has stored meanwhile; says whether there was one. */
    adopt: (): boolean => {
      const other = storedToken(key);
      if (!other || other === token) return false;
      token = other;
      return true;
    },
  };
};

const DEVICE_KEY = 'porch:device';

/** By which this browser is known at all doors of the house, where it keeps anything at all: made here, told with words. */
export const deviceMark = (): string => {
  const known = kept(DEVICE_KEY);
  if (known && isId(known)) return known;
  const made = nanoid();
  keep(DEVICE_KEY, made);
  return made;
};
