import { StyleSheet, View } from 'react-native';
import { Text } from './text';
import { useTheme } from './theme/use-theme';

const NUMBER_PX = 30;

/** What to do, one step after another. */
export const Steps = ({ steps }: { steps: readonly string[] }) => {
  const theme = useTheme();
  return (
    <View role="list" style={styles.list}>
      {steps.map((step, index) => (
        <View key={step} role="listitem" style={styles.step}>
          <View style={[styles.number, { borderColor: theme.ink }]}>
            <Text kind="label">{index + 1}</Text>
          </View>
          <Text style={styles.grow}>{step}</Text>
        </View>
      ))}
    </View>
  );
};

const styles = StyleSheet.create({
  list: { gap: 10 },
  step: { flexDirection: 'row', alignItems: 'center', gap: 12 },
  number: {
    minWidth: NUMBER_PX,
    minHeight: NUMBER_PX,
    borderWidth: 2,
    borderRadius: 4,
    alignItems: 'center',
    justifyContent: 'center',
  },
  grow: { flex: 1 },
});
