import { useEffect, useState } from 'preact/hooks';

type Asked = typeof import('./asked');

let loaded: Asked | null = null;

/** What is asked often: loaded only where there is some, and where it can be had. */
export const useAsked = (isWanted: boolean): Asked | null => {
  const [asked, setAsked] = useState(loaded);
  useEffect(() => {
    if (!isWanted || asked) return;
    let isGone = false;
    void import('./asked').then(
      (one) => {
        loaded = one;
        if (!isGone) setAsked(one);
      },
      () => {},
    );
    return () => {
      isGone = true;
    };
  }, [isWanted, asked]);
  return isWanted ? asked : null;
};
