import type { Counts } from '@porch/contract/entries';
import type { TeamLamp } from '@porch/contract/lamp';
import type { View } from '@porch/core/conversation';
import { create } from 'zustand';

/** What is true now and held by nobody's cache: the connection to the server, the lamp, the counts, who types. */
interface LiveState {
  isConnected: boolean;
  /** False until the first welcome; then a lost connection is worth a word. */
  wasConnected: boolean;
  lamp: TeamLamp | null;
  /** How many stand in each group of a view, for the views that were asked for. */
  counts: Readonly<Partial<Record<View, Counts>>>;
  /** The server's clock less this device's, in milliseconds. */
  offsetMs: number;
  /** Whether it is known from where to go on: a house in which nothing has happened yet stands at 0. */
  isKnown: boolean;
  /** The newest seq that this device has applied. */
  seq: number;
  /** The entry at `seq`, by which the server knows that it stands where we have it. */
  last: string | null;
  /** Conversations in which the visitor types, with when that was last heard of, by the server's clock. */
  typing: Readonly<Record<string, number>>;
}

/** What of it is worth keeping: it belongs to the lines and rolls that are kept beside it. */
export type Known = Pick<LiveState, 'lamp' | 'counts' | 'offsetMs' | 'seq' | 'last'>;

export const knownKey = ['known'] as const;

export const useLive = create<LiveState>(() => ({
  isConnected: false,
  wasConnected: false,
  lamp: null,
  counts: {},
  offsetMs: 0,
  isKnown: false,
  seq: 0,
  last: null,
  typing: {},
}));

export const live = {
  now: useLive.getState,
  set: (change: Partial<LiveState>): void => useLive.setState(change),
  /** Takes from a page of the line what it says about the whole. */
  learn: (
    view: View,
    page: { counts: Counts; seq: number; last: string | null; now: number },
  ): void => {
    // Of pages that come side by side the oldest counts: nothing after it may be missed.
    const { isKnown, seq, isConnected, counts } = live.now();
    const isFirst = !isKnown || (!isConnected && page.seq < seq);
    live.set({
      counts: { ...counts, [view]: page.counts },
      offsetMs: page.now - Date.now(),
      ...(isFirst ? { isKnown: true, seq: page.seq, last: page.last } : {}),
    });
  },
};

/** The server's time as this device believes it to be. */
export const serverNow = (): number => Date.now() + live.now().offsetMs;
