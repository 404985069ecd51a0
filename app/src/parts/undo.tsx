import { useEffect, useSyncExternalStore } from 'react';
import { StyleSheet, View } from 'react-native';
import { useOutbox } from '../data/outbox';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { Button } from './press';
import { Words } from './words';

/** Whatever was done can be undone for this long. */
const UNDO_MS = 6_000;

interface Offer {
  said: string;
  /** What is undone; when the house refuses it there is nothing to undo. */
  deedId: string;
  undo: () => void;
}

let offer: Offer | null = null;
const watchers = new Set<() => void>();

const set = (next: Offer | null): void => {
  offer = next;
  for (const watcher of watchers) watcher();
};

export const offerUndo = (next: Offer): void => set(next);

const subscribe = (watcher: () => void): (() => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

/** Says what was just done, with the way back. Mount once. */
export const UndoOffer = () => {
  const theme = useTheme();
  const current = useSyncExternalStore(
    subscribe,
    () => offer,
    () => null,
  );
  useEffect(() => {
    if (!current) return;
    const timer = setTimeout(() => set(null), UNDO_MS);
    return () => clearTimeout(timer);
  }, [current]);
  const { refusals } = useOutbox();
  if (!current || refusals[current.deedId]) return null;
  return (
    <View role="status" style={[styles.offer, { backgroundColor: theme.ink }]}>
      <Words tone="onInk" style={styles.said}>
        {current.said}
      </Words>
      <Button
        label={words.undo.action}
        look="main"
        onPress={() => {
          current.undo();
          set(null);
        }}
        style={{ borderColor: theme.onInk }}
      />
    </View>
  );
};

const styles = StyleSheet.create({
  offer: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    gap: 12,
    paddingLeft: 16,
    paddingRight: 8,
    paddingVertical: 6,
  },
  said: { flexShrink: 1 },
});
