import { Slot } from 'expo-router';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { LineColumn } from '../../features/line/screens/line-column';
import { late } from '../../kit/late';
import { RowsComing } from '../../kit/states';
import { useTheme } from '../../kit/theme/use-theme';
import { useWide } from '../../kit/theme/use-wide';
import { Conversation } from '../../late/answering';

export { ErrorBoundary } from '../../shell/offline/error-boundary';

/** What whoever taps a row comes to: the place, which is a part of its own, and what stands there. */
export const prepareConversation = () => Promise.all([import('./[id]'), Conversation.prepare()]);

const SetupLeft = late(
  async () => (await import('../../features/house/parts/setup-left')).SetupLeft,
  () => <RowsComing />,
);

/** Nobody has written yet: there may be something left to set up. */
export const setupLeft = (plain: ReactNode) => <SetupLeft otherwise={plain} />;

/** On a wide screen the line stays beside the conversation; on a phone one is shown at a time. */
const LineLayout = () => {
  const theme = useTheme();
  const isWide = useWide();
  if (!isWide) return <Slot />;
  return (
    <View style={styles.sides}>
      <View style={[styles.line, { borderColor: theme.seam }]}>
        <LineColumn prepare={prepareConversation} whenEmpty={setupLeft} />
      </View>
      <View style={styles.grow}>
        <Slot />
      </View>
    </View>
  );
};

const styles = StyleSheet.create({
  sides: { flex: 1, flexDirection: 'row' },
  // The conversation keeps the most room, on a screen that is just wide as well.
  line: { width: '30%', minWidth: 290, maxWidth: 380, borderRightWidth: 1 },
  grow: { flex: 1, minWidth: 0 },
});

export default LineLayout;
