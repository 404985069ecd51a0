import type { Patience } from '@porch/core/patience';
import { StyleSheet, View } from 'react-native';
import { useTheme } from '../theme/use-theme';

/** The wick at a row's leading edge: it burns down with the visitor's patience. The time stands beside it in words. */
export const Wick = ({ patience }: { patience: Patience | null }) => {
  const theme = useTheme();
  if (!patience) return <View style={styles.wick} />;
  const burnt = `${Math.round((1 - patience.share) * 100)}%` as const;
  return (
    <View aria-hidden style={[styles.wick, { backgroundColor: theme.seam }]}>
      <View style={{ height: burnt }} />
      <View
        style={[styles.left, { backgroundColor: patience.isLate ? theme.brick : theme.lamp }]}
      />
      {patience.isLate ? <View style={[styles.all, { backgroundColor: theme.brick }]} /> : null}
    </View>
  );
};

const styles = StyleSheet.create({
  wick: { width: 6, alignSelf: 'stretch', overflow: 'hidden' },
  left: { flex: 1 },
  all: { position: 'absolute', top: 0, bottom: 0, left: 0, right: 0 },
});
