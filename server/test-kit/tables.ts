import { setImmediate } from 'node:timers/promises';
import type { TableProgress } from '@porch/contract/tables';

/** Which shares of a table are said to have been read while it is, by whoever has a turn meanwhile. */
export const sharesWhile = async (
  taking: Promise<unknown>,
  progressNow: () => Promise<TableProgress>,
): Promise<number[]> => {
  let isDone = false;
  const done = taking.finally(() => {
    isDone = true;
  });
  const shares: number[] = [];
  while (!isDone) {
    const progress = await progressNow();
    if (progress) shares.push(progress.share);
    await setImmediate();
  }
  await done;
  return shares;
};
