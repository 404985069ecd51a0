import { StyleSheet, View } from 'react-native';
import { Sheet } from '../parts/sheet';
import { Words } from '../parts/words';
import { words } from '../wording';

/** Every key that does something. */
export const KeySheet = ({ close }: { close: () => void }) => (
  <Sheet title={words.keys.title} close={close}>
    {words.keys.rows.map(([key, what]) => (
      <View key={key} style={styles.row}>
        <Words kind="label" style={styles.key}>
          {key}
        </Words>
        <Words style={styles.grow}>{what}</Words>
      </View>
    ))}
  </Sheet>
);

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'baseline', gap: 12 },
  key: { width: 120 },
  grow: { flex: 1 },
});
