/** Small things that this device remembers; without storage they last as long as the page. */
const memory = new Map<string, string>();
let isAllowed = true;

const store = (key: string, value: string): void => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Full or forbidden: what is in memory has to do.
  }
};

/** Remembers a text under a key. */
export const keep = (key: string, value: string): void => {
  memory.set(key, value);
  if (isAllowed) store(key, value);
};

/** What was remembered under a key, by this page or by an earlier one; null for nothing. */
export const kept = (key: string): string | null => {
  try {
    const stored = localStorage.getItem(key);
    return (isAllowed ? stored : memory.get(key)) ?? memory.get(key) ?? stored;
  } catch {
    return memory.get(key) ?? null;
  }
};

/**
 * Until somebody agrees, nothing of theirs is written to this device, if they are to be asked; what was held
 * meanwhile is, once they do.
 */
export const mayKeep = (isGiven: boolean): void => {
  isAllowed = isGiven;
  if (isGiven) for (const [key, value] of memory) store(key, value);
};
