import { useLayoutEffect, useRef } from 'react';
import { isChosen } from '../session/choices';

export type Keys = Readonly<Record<string, () => void>>;

const isWriting = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/**
 * Single keys that do something, while nobody is writing and no sheet is open; they can be turned off. `isFirst`: what
 * they do here goes before what they do elsewhere.
 */
export const useKeys = (keys: Keys, isFirst = false): void => {
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
      if (isFirst) event.stopImmediatePropagation();
      deed();
    };
    window.addEventListener('keydown', press, isFirst);
    return () => window.removeEventListener('keydown', press, isFirst);
  }, [isFirst]);
};
