import type { FileMention } from '@porch/core/conversation';
import { Image, Modal, StyleSheet, View } from 'react-native';
import { fileAddress } from '../data/api';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { Button } from './press';

/** A picture over the whole screen. Esc closes it. */
export const LargePicture = ({ file, close }: { file: FileMention; close: () => void }) => {
  const theme = useTheme();
  return (
    <Modal visible animationType="none" onRequestClose={close}>
      <View style={[styles.whole, { backgroundColor: theme.paper }]} aria-label={file.name}>
        <Button look="bare" label={words.conversation.closePicture} onPress={close} />
        <Image
          source={{ uri: fileAddress(file.id, 'whole') }}
          alt={file.name}
          resizeMode="contain"
          style={styles.picture}
        />
      </View>
    </Modal>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1, padding: 8, gap: 8 },
  picture: { flex: 1, width: '100%' },
});
