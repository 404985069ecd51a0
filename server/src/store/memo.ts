export interface Memo<Value> {
  get(key: string): Value | undefined;
  put(key: string, value: Value): void;
  /** A transaction came to nothing: what was put in it never was. */
  forget(): void;
}

/**
 * Rows that were read or written lately, so that each message does not read them anew; whoever was put
 * in first leaves first. Nobody else writes these tables while the server runs, and every transaction
 * that fails forgets (`atOnce`).
 */
export const createMemo = <Value>(most: number): Memo<Value> => {
  const known = new Map<string, Value>();
  return {
    get: (key) => known.get(key),
    put: (key, value) => {
      if (known.size >= most && !known.has(key)) {
        for (const first of known.keys()) {
          known.delete(first);
          break;
        }
      }
      known.set(key, value);
    },
    forget: () => known.clear(),
  };
};
