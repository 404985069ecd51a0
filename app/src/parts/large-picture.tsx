import type { FileMention } from '@porch/core/conversation';
import { Modal, StyleSheet, View } from 'react-native';
import { fileAddress } from '../data/api';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { Photo } from './photo';
import { Button } from './press';
import { useDialogName } from './use-dialog-name';
import { useEscape } from './use-escape';

/** A picture over the whole screen. Esc closes it. */
export const LargePicture = ({ file, close }: { file: FileMention; close: () => void }) => {
  const theme = useTheme();
  const inside = useDialogName(file.name);
  useEscape(close);
  return (
    <Modal visible animationType="none">
      <View ref={inside} style={[styles.whole, { backgroundColor: theme.paper }]}>
        <Button look="bare" label={words.conversation.closePicture} onPress={close} />
        <View style={styles.picture}>
          <Photo
            source={fileAddress(file.id, 'whole')}
            alt={file.name}
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
