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
  /** The entry at `seq`, by which the server knows that it stands where we have it. */
  last: string | null;
  /** Conversations in which the visitor types, with when that was last heard of. */
  typing: Readonly<Record<string, number>>;
}

/** What of it is worth keeping: it belongs to the lines and rolls that are kept beside it. */
export type Known = Pick<LiveState, 'lamp' | 'counts' | 'offsetMs' | 'seq' | 'last'>;

export const knownKey = ['known'] as const;

let state: LiveState = {
  isConnected: false,
  wasConnected: false,
  lamp: null,
  counts: null,
  offsetMs: 0,
  seq: 0,
  last: null,
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
  learn: (page: { counts: Counts; seq: number; last: string | null; now: number }): void => {
    // Of pages that come side by side the oldest counts: nothing after it may be missed.
    const isFirst = state.seq === 0 || (!state.isConnected && page.seq < state.seq);
    set({
      counts: page.counts,
      offsetMs: page.now - Date.now(),
      ...(isFirst ? { seq: page.seq, last: page.last } : {}),
    });
  },
};

const subscribe = (watcher: () => void): (() => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

export const useLive = (): LiveState => useSyncExternalStore(subscribe, live.now, live.now);

/** The server's time as this device believes it to be. */
export const serverNow = (): number => Date.now() + state.offsetMs;
