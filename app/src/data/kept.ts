/** Small things that this device remembers; without storage they last as long as the page. */
const memory = new Map<string, string>();

export const kept = (key: string): string | null => {
  try {
    return localStorage.getItem(key) ?? memory.get(key) ?? null;
  } catch {
    return memory.get(key) ?? null;
  }
};

export const keep = (key: string, value: string): void => {
  memory.set(key, value);
  try {
    localStorage.setItem(key, value);
  } catch {
    // Full or forbidden: what is in memory has to do.
  }
};
