import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { type ReactNode, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from '../text';
import { touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';

/** Something that most people never need: behind its name until somebody opens it. */
export const Fold = (props: { title: string; isOpenAtFirst?: boolean; children: ReactNode }) => {
  const theme = useTheme();
  const [isOpen, setOpen] = useState(props.isOpenAtFirst ?? false);
  const Chevron = isOpen ? ChevronDown : ChevronRight;
  return (
    <View role="region" aria-label={props.title} style={[styles.fold, { borderColor: theme.seam }]}>
      <View role="heading" aria-level={2}>
        <Pressable
          role="button"
          aria-expanded={isOpen}
          onPress={() => setOpen(!isOpen)}
          style={styles.head}
        >
          <Text kind="name" style={styles.grow}>
            {props.title}
          </Text>
          <Chevron size={22} color={theme.slate} aria-hidden />
        </Pressable>
      </View>
      {isOpen ? <View style={styles.inside}>{props.children}</View> : null}
    </View>
  );
};

const styles = StyleSheet.create({
  fold: { borderBottomWidth: 1 },
  head: { minHeight: touch, flexDirection: 'row', alignItems: 'center', gap: 8 },
  grow: { flex: 1 },
  inside: { gap: 12, paddingBottom: 20 },
});
