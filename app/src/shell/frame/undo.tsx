import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { create } from 'zustand';
import { Button } from '../../kit/press';
import { Text } from '../../kit/text';
import { useTheme } from '../../kit/theme/use-theme';
import { useOutbox } from '../live/outbox';
import { shellWords } from '../words';

/** Whatever was done can be undone for this long. */
const UNDO_MS = 6_000;

interface Offer {
  said: string;
  /** What is undone; of what the house refuses there is nothing to undo. */
  deedIds: readonly string[];
  /** `left`: which of them were not refused, by their place. */
  undo: (left: readonly number[]) => void;
}

const useOffer = create<{ offer: Offer | null }>(() => ({ offer: null }));

const set = (offer: Offer | null): void => useOffer.setState({ offer });

export const offerUndo = (offer: Offer): void => set(offer);

/** Says what was just done, with the way back. Mount once. */
export const UndoOffer = () => {
  const theme = useTheme();
  const current = useOffer(({ offer }) => offer);
  useEffect(() => {
    if (!current) return;
    const timer = setTimeout(() => set(null), UNDO_MS);
    return () => clearTimeout(timer);
  }, [current]);
  const refusals = useOutbox((outbox) => outbox.refusals);
  const left = (current?.deedIds ?? []).flatMap((id, at) => (id in refusals ? [] : [at]));
  if (!current || left.length === 0) return null;
  return (
    <View role="status" style={[styles.offer, { backgroundColor: theme.ink }]}>
      <Text tone="onInk" style={styles.said}>
        {current.said}
      </Text>
      <Button
        label={shellWords().undo}
        look="main"
        onPress={() => {
          current.undo(left);
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
