import { StyleSheet, View } from 'react-native';
import { useTheme } from '../theme/use-theme';
import { drawn } from './in-own-colours';

/** The wick at a row's leading edge: it burns down with the visitor's patience. The time stands beside it in words. */
export const Wick = (props: {
  /** How much of it has burnt down, in percent; null where nobody waits. */
  burnt: number | null;
  isLate: boolean;
}) => {
  const theme = useTheme();
  if (props.burnt === null) return <View style={styles.wick} />;
  const burnt = `${props.burnt}%` as const;
  return (
    <View aria-hidden {...drawn} style={[styles.wick, { backgroundColor: theme.seam }]}>
      <View style={{ height: burnt }} />
      <View style={[styles.left, { backgroundColor: props.isLate ? theme.brick : theme.lamp }]} />
      {props.isLate ? <View style={[styles.all, { backgroundColor: theme.brick }]} /> : null}
    </View>
  );
};

const styles = StyleSheet.create({
  wick: { width: 6, alignSelf: 'stretch', overflow: 'hidden' },
  left: { flex: 1 },
  all: { position: 'absolute', top: 0, bottom: 0, left: 0, right: 0 },
});
