import type { ReactNode } from 'react';
import { Modal, Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Button } from '../press';
import { Text } from '../text';
import { useTheme } from '../theme/use-theme';
import { useWide } from '../theme/use-wide';
import { kitWords } from '../words';
import { useDialogName } from './use-dialog-name';
import { useEscape } from './use-escape';

/** Something asked or told over the screen, at the bottom of a phone and in the middle of a wide screen. Esc closes it. */
export const Sheet = (props: { title: string; close: () => void; children: ReactNode }) => {
  const theme = useTheme();
  const isWide = useWide();
  const inside = useDialogName(props.title);
  useEscape(props.close);
  return (
    <Modal transparent animationType="none" visible>
      <View ref={inside} style={[styles.whole, isWide ? styles.middle : styles.bottom]}>
        <Pressable
          style={styles.behind}
          onPress={props.close}
          aria-hidden
          tabIndex={-1}
          focusable={false}
        />
        <View
          style={[
            styles.sheet,
            isWide ? styles.sheetWide : styles.sheetPhone,
            { backgroundColor: theme.paper, borderColor: theme.ink },
          ]}
        >
          <View style={styles.top}>
            <Text kind="title" role="heading" aria-level={2} style={styles.title}>
              {props.title}
            </Text>
            <Button look="bare" label={kitWords().close} onPress={props.close} />
          </View>
          <ScrollView contentContainerStyle={styles.inside}>{props.children}</ScrollView>
        </View>
      </View>
    </Modal>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1 },
  bottom: { justifyContent: 'flex-end' },
  middle: { justifyContent: 'center', alignItems: 'center' },
  behind: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    left: 0,
    right: 0,
    backgroundColor: 'rgba(10, 14, 22, 0.55)',
  },
  sheet: { borderWidth: 2, maxHeight: '88%' },
  sheetPhone: { borderBottomWidth: 0, borderTopLeftRadius: 4, borderTopRightRadius: 4 },
  sheetWide: { width: 460, borderRadius: 4 },
  top: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    paddingLeft: 16,
    paddingRight: 8,
    paddingTop: 8,
  },
  title: { flexShrink: 1 },
  inside: { padding: 16, gap: 12 },
});
