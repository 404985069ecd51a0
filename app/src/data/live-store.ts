import type { Counts } from '@porch/contract/entries';
import type { LampSetting } from '@porch/core/lamp';
import { useSyncExternalStore } from 'react';

/** What is true now and held by nobody's cache: the line to the server, the lamp, the counts, who types. */
export interface LiveState {
  isConnected: boolean;
  /** False until the first welcome; then a lost line is worth a word. */
  wasConnected: boolean;
  lamp: LampSetting | null;
  counts: Counts | null;
  /** The server's clock less this device's, in milliseconds. */
  offsetMs: number;
  /** The newest seq that this device has applied. */
  seq: number;
  /** Conversations in which the visitor types, with when that was last heard of. */
  typing: Readonly<Record<string, number>>;
}

/** What of it is worth keeping: it belongs to the lines and rolls that are kept beside it. */
export type Known = Pick<LiveState, 'lamp' | 'counts' | 'offsetMs' | 'seq'>;

export const knownKey = ['known'] as const;

let state: LiveState = {
  isConnected: false,
  wasConnected: false,
  lamp: null,
  counts: null,
  offsetMs: 0,
  seq: 0,
  typing: {},
};

const watchers = new Set<() => void>();

const set = (change: Partial<LiveState>): void => {
  state = { ...state, ...change };
  for (const watcher of watchers) watcher();
};

export const live = {
  now: (): LiveState => state,
  set,
  /** Takes from a page of the line what it says about the whole. */
  learn: (page: { counts: Counts; seq: number; now: number }): void =>
    set({
      counts: page.counts,
      offsetMs: page.now - Date.now(),
      // Of pages that come side by side the oldest counts: nothing after it may be missed.
      seq:
        state.isConnected || state.seq === 0
          ? state.seq || page.seq
          : Math.min(state.seq, page.seq),
    }),
};

const subscribe = (watcher: () => void): (() => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

export const useLive = (): LiveState => useSyncExternalStore(subscribe, live.now, live.now);

/** The server's time as this device believes it to be. */
export const serverNow = (): number => Date.now() + state.offsetMs;
