import { useCallback, useRef, useSyncExternalStore } from 'react';
import { shallow } from 'zustand/shallow';
import { serverNow } from './store';

const TICK_MS = 1_000;
export const SECOND_MS = 1_000;
export const MINUTE_MS = 60_000;

let timer: ReturnType<typeof setInterval> | undefined;
const watchers = new Set<() => void>();

/** One clock for all that is on the screen. */
const onTick = (watcher: () => void): (() => void) => {
  watchers.add(watcher);
  timer ??= setInterval(() => {
    for (const one of [...watchers]) one();
  }, TICK_MS);
  return () => {
    watchers.delete(watcher);
    if (watchers.size > 0) return;
    clearInterval(timer);
    timer = undefined;
  };
};

/**
 * Something that changes as time goes by, looked at every second and drawn anew only when it is another: a text,
 * a number, or a flat record of such. `tell` is given the server's time, in UTC epoch milliseconds.
 */
export const useAsTimeGoes = <Told>(tell: (now: number) => Told): Told => {
  const last = useRef<{ told: Told } | null>(null);
  const read = (): Told => {
    const told = tell(serverNow());
    if (!last.current || !shallow(last.current.told, told)) last.current = { told };
    return last.current.told;
  };
  return useSyncExternalStore(onTick, read, read);
};

/**
 * The server's time for showing, in steps of so many milliseconds: the beginning of the step that it is in. What is
 * done at a moment is reckoned from `serverNow`.
 */
export const useNow = (stepMs: number): number =>
  useAsTimeGoes(useCallback((now: number) => now - (now % stepMs), [stepMs]));
