import { isVisitorToken } from '@porch/core/ids';

export interface Door {
  door: string;
  business: string;
  /** In a frame on a website, or on a page of our own. */
  place: 'frame' | 'page';
}

/** What the page was served with. */
export const readDoor = (): Door =>
  JSON.parse(document.getElementById('door')?.textContent ?? '{}') as Door;

/** Kept for this visitor on this device; without storage it lasts as long as the page. */
const memory = new Map<string, string>();

export const keep = (key: string, value: string): void => {
  memory.set(key, value);
  try {
    localStorage.setItem(key, value);
  } catch {
    // Full or forbidden: what is in memory has to do.
  }
};

export const kept = (key: string): string | null => {
  try {
    return localStorage.getItem(key) ?? memory.get(key) ?? null;
  } catch {
    return memory.get(key) ?? null;
  }
};

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
