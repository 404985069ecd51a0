import ChevronRight from 'lucide-react-native/icons/chevron-right';
import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from './text';
import { touch } from './theme/sizes';
import { useTheme } from './theme/use-theme';
import { type WayOn, wayOn } from './way';

/** A way on from a list: what lies there, and a line about it. */
export const WayRow = (props: { title: string; more: string; icon: ReactNode; to: WayOn }) => {
  const theme = useTheme();
  return (
    <Pressable
      {...wayOn(props.to)}
      aria-label={`${props.title}, ${props.more}`}
      style={[styles.way, { borderColor: theme.seam }]}
    >
      <View style={styles.icon}>{props.icon}</View>
      <View style={styles.grow}>
        <Text kind="name">{props.title}</Text>
        <Text kind="second" tone="slate">
          {props.more}
        </Text>
      </View>
      <ChevronRight size={22} color={theme.slate} aria-hidden />
    </Pressable>
  );
};

const styles = StyleSheet.create({
  way: {
    minHeight: touch + 12,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    paddingVertical: 8,
    borderBottomWidth: 1,
  },
  icon: { width: 40, alignItems: 'center' },
  grow: { flex: 1 },
});
