/**
 * One value that is read with every message and seldom written, read once until it is written or a transaction fails.
 * Nobody else writes it while the server runs.
 */
export const createKept = <Value>(read: () => Value) => {
  let kept: { value: Value } | null = null;
  return {
    get: (): Value => {
      kept ??= { value: read() };
      return kept.value;
    },
    forget: (): void => {
      kept = null;
    },
  };
};
