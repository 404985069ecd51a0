import { useSyncExternalStore } from 'react';
import { keep, kept } from './kept';

/** What somebody has chosen for this device alone. */
const watchers = new Set<() => void>();

const subscribe = (watcher: () => void): (() => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

export type Choice = 'sound' | 'shortcuts';

/** On unless it was turned off. */
export const isChosen = (choice: Choice): boolean => kept(`porch:${choice}`) !== 'off';

export const choose = (choice: Choice, isOn: boolean): void => {
  keep(`porch:${choice}`, isOn ? 'on' : 'off');
  for (const watcher of watchers) watcher();
};

export const useChoice = (choice: Choice): boolean =>
  useSyncExternalStore(
    subscribe,
    () => isChosen(choice),
    () => true,
  );
