import { useEffect, useState } from 'preact/hooks';

/** A hook that gives what is loaded only where it is wanted; null until it is there, or where it cannot be had. */
export const late = <Parts>(load: () => Promise<Parts>) => {
  let loaded: Parts | null = null;
  return (isWanted: boolean): Parts | null => {
    const [parts, setParts] = useState(loaded);
    useEffect(() => {
      if (!isWanted || parts) return;
      let isGone = false;
      void load().then(
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
};
