import { useLayoutEffect, useRef } from 'react';
import { isChosen } from '../session/choices';

export type Keys = Readonly<Record<string, () => void>>;

const isWriting = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Single keys that do something, while nobody is writing and no sheet is open; they can be turned off. */
export const useKeys = (keys: Keys): void => {
  const current = useRef(keys);
  current.current = keys;
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return;
      if (isWriting(event.target) || !isChosen('shortcuts')) return;
      if (document.querySelector('[aria-modal="true"]')) return;
      const deed = current.current[event.key];
      if (!deed) return;
      event.preventDefault();
      deed();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
};
