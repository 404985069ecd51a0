import type { QuickReply } from '@porch/contract/replies';
import { briefOf } from '@porch/core/replies';
import { StyleSheet, View } from 'react-native';
import { Text } from '../../../kit/text';
import { words } from '../words';

/** A quick reply in a list: its title and code, and the beginning of its text. */
export const ReplyInBrief = ({ reply, lines }: { reply: QuickReply; lines: number }) => (
  <>
    <View style={styles.top}>
      <Text kind="label" numberOfLines={1} style={styles.title}>
        {reply.title}
      </Text>
      <Text kind="second" tone="ember">
        {[reply.code ? words().code(reply.code) : '', reply.memberId ? words().own : '']
          .filter(Boolean)
          .join(' · ')}
      </Text>
    </View>
    <Text kind="second" tone="slate" numberOfLines={lines}>
      {briefOf(reply.text)}
    </Text>
  </>
);

const styles = StyleSheet.create({
  top: { flexDirection: 'row', gap: 12, alignItems: 'baseline' },
  title: { flexShrink: 1 },
});
