import { useEffect, useState } from 'preact/hooks';

type LateParts = typeof import('./late-parts');

let loaded: LateParts | null = null;

/** Parts of the panel that are loaded only where they are wanted; null until they are there, or where they cannot be had. */
export const useLate = (isWanted: boolean): LateParts | null => {
  const [parts, setParts] = useState(loaded);
  useEffect(() => {
    if (!isWanted || parts) return;
    let isGone = false;
    void import('./late-parts').then(
      (all) => {
        loaded = all;
        if (!isGone) setParts(all);
      },
      () => {},
    );
    return () => {
      isGone = true;
    };
  }, [isWanted, parts]);
  return isWanted ? parts : null;
};
