/**
 * What the browser keeps under a key, after `value` is put there if there is one. A website may forbid storage: then
 * there is nothing (null), and the next page does not know of it.
 */
export type Remember = (
  where: 'localStorage' | 'sessionStorage',
  key: string,
  value?: string | null,
) => string | null;

export const remember: Remember = (where, key, value) => {
  try {
    if (value) window[where].setItem(key, value);
    return window[where].getItem(key);
  } catch {
    return null;
  }
};
