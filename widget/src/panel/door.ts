import type { PanelPageData } from '@porch/contract/visitor';
import { isVisitorToken } from '@porch/core/ids';

/** What the page was served with. */
export const readDoor = (): PanelPageData =>
  JSON.parse(document.getElementById('door')?.textContent ?? '{}') as PanelPageData;

/** Kept for this visitor on this device; without storage it lasts as long as the page. */
const memory = new Map<string, string>();
const permission = { isGiven: true };

const store = (key: string, value: string): void => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Full or forbidden: what is in memory has to do.
  }
};

export const keep = (key: string, value: string): void => {
  memory.set(key, value);
  if (permission.isGiven) store(key, value);
};

export const kept = (key: string): string | null => {
  try {
    const stored = localStorage.getItem(key);
    return (permission.isGiven ? stored : memory.get(key)) ?? memory.get(key) ?? stored;
  } catch {
    return memory.get(key) ?? null;
  }
};

/** Until the visitor agrees, nothing of theirs is written to this device; what was held is, once they do. */
export const mayKeep = (isGiven: boolean): void => {
  permission.isGiven = isGiven;
  if (isGiven) for (const [key, value] of memory) store(key, value);
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
