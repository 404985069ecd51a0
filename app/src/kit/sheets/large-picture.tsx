import { Modal, StyleSheet, View } from 'react-native';
import { Photo } from '../drawn/photo';
import { Button } from '../press';
import { useTheme } from '../theme/use-theme';
import { kitWords } from '../words';
import { useDialogName } from './use-dialog-name';
import { useEscape } from './use-escape';

/** A picture over the whole screen. Esc closes it. */
export const LargePicture = (props: { name: string; source: string; close: () => void }) => {
  const theme = useTheme();
  const inside = useDialogName(props.name);
  useEscape(props.close);
  return (
    <Modal visible animationType="none">
      <View ref={inside} style={[styles.whole, { backgroundColor: theme.paper }]}>
        <Button look="bare" label={kitWords().closePicture} onPress={props.close} />
        <View style={styles.picture}>
          <Photo
            source={props.source}
            alt={props.name}
            style={{ width: '100%', height: '100%', objectFit: 'contain' }}
          />
        </View>
      </View>
    </Modal>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1, padding: 8, gap: 8 },
  picture: { flex: 1, minHeight: 0 },
});
