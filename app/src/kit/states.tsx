import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from './press';
import { Text } from './text';
import { useTheme } from './theme/use-theme';
import { kitWords } from './words';

/** What an empty place says: what will stand here, and the one next step. */
export const Empty = (props: { title: string; more?: string; children?: ReactNode }) => (
  <View style={styles.empty}>
    <Text kind="title" role="heading" aria-level={2}>
      {props.title}
    </Text>
    {props.more ? <Text tone="slate">{props.more}</Text> : null}
    {props.children}
  </View>
);

/** Something could not be read: what happened, and trying again. */
export const Failed = ({ retry }: { retry: () => void }) => (
  <Empty title={kitWords().failed.title} more={kitWords().failed.more}>
    <Button label={kitWords().failed.retry} onPress={retry} />
  </Empty>
);

/** The shape of rows that are still on their way. */
export const RowsComing = ({ count = 6 }: { count?: number }) => {
  const theme = useTheme();
  const ground = { backgroundColor: theme.linen };
  return (
    <View role="status" aria-label={kitWords().loading}>
      {Array.from({ length: count }, (_, index) => `row ${index}`).map((key) => (
        <View key={key} style={[styles.row, { borderColor: theme.seam }]}>
          <View style={[styles.plate, ground]} />
          <View style={styles.lines}>
            <View style={[styles.short, ground]} />
            <View style={[styles.long, ground]} />
          </View>
        </View>
      ))}
    </View>
  );
};

const styles = StyleSheet.create({
  empty: { padding: 24, gap: 12, maxWidth: 520 },
  row: { flexDirection: 'row', gap: 12, padding: 16, borderBottomWidth: 1 },
  plate: { width: 26, height: 34, borderRadius: 2 },
  lines: { flex: 1, gap: 8 },
  short: { height: 16, width: '40%', borderRadius: 2 },
  long: { height: 14, width: '85%', borderRadius: 2 },
});
