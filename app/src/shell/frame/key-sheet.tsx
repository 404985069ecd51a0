import { StyleSheet, View } from 'react-native';
import { Sheet } from '../../kit/sheets/sheet';
import { Text } from '../../kit/text';
import { shellWords } from '../words';

/** Every key that does something. */
export const KeySheet = ({ close }: { close: () => void }) => (
  <Sheet title={shellWords().keys.title} close={close}>
    {shellWords().keys.rows.map(([key, what]) => (
      <View key={key} style={styles.row}>
        <Text kind="label" style={styles.key}>
          {key}
        </Text>
        <Text style={styles.grow}>{what}</Text>
      </View>
    ))}
  </Sheet>
);

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'baseline', gap: 12 },
  key: { width: 120 },
  grow: { flex: 1 },
});
