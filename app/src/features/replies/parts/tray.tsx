import type { Fit, QuickReply } from '@porch/contract/replies';
import { router } from 'expo-router';
import { useDeferredValue, useState } from 'react';
import { FlatList, Pressable, StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { SearchField } from '../../../kit/fields/search-field';
import { Button } from '../../../kit/press';
import { useEscape } from '../../../kit/sheets/use-escape';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { useRepliesIndex } from '../data/replies';
import { words } from '../words';
import { FitsPart } from './fits-part';
import { ReplyInBrief } from './reply-in-brief';

type Item =
  | { is: 'group'; key: string; name: string }
  | { is: 'reply'; key: string; reply: QuickReply };

/** Those without a group first: the most used of all; each group in the order of its most used. */
const inGroups = (replies: readonly QuickReply[]): Item[] => {
  const groups = [...new Set(replies.map(({ group }) => group))].sort(
    (a, b) => Number(a !== '') - Number(b !== ''),
  );
  return groups.flatMap((name): Item[] => [
    ...(groups.length > 1
      ? [{ is: 'group' as const, key: `group ${name}`, name: name || words().noGroup }]
      : []),
    ...replies
      .filter(({ group }) => group === name)
      .map((reply) => ({ is: 'reply' as const, key: reply.id, reply })),
  ]);
};

const ReplyRow = ({ reply, take }: { reply: QuickReply; take: () => void }) => {
  const theme = useTheme();
  return (
    <Pressable
      role="button"
      aria-label={words().tray.take(reply.title)}
      onPress={take}
      style={[styles.reply, { borderColor: theme.seam }]}
    >
      <ReplyInBrief reply={reply} lines={2} />
    </Pressable>
  );
};

/** The reply tray: stored answers above the field, found by a search, taken with a tap. */
export const ReplyTray = (props: {
  fits: readonly Fit[];
  take: (reply: QuickReply) => void;
  takeFit: (fit: Fit) => void;
  close: () => void;
}) => {
  useEscape(props.close);
  const theme = useTheme();
  const index = useRepliesIndex();
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim());
  const found = index.search(sought);
  const isEmpty = sought === '' && found.length === 0;
  const write = (
    <Button
      look={isEmpty ? 'edge' : 'bare'}
      label={words().tray.write}
      onPress={() => router.navigate('/house/reply/new')}
    />
  );
  return (
    <View
      role="region"
      aria-label={words().tray.open}
      style={[styles.tray, { borderColor: theme.seam }]}
    >
      {isEmpty ? (
        <>
          {props.fits.length > 0 ? <FitsPart fits={props.fits} take={props.takeFit} /> : null}
          <Text kind="label">{words().none.title}</Text>
          <Text kind="second" tone="slate">
            {words().none.more}
          </Text>
          <Row>{write}</Row>
        </>
      ) : (
        <>
          <SearchField label={words().search} value={typed} change={setTyped} />
          <FlatList
            data={
              sought
                ? found.map((reply): Item => ({ is: 'reply', key: reply.id, reply }))
                : inGroups(found)
            }
            keyExtractor={({ key }) => key}
            keyboardShouldPersistTaps="handled"
            initialNumToRender={12}
            style={styles.list}
            ListHeaderComponent={
              !sought && props.fits.length > 0 ? (
                <FitsPart fits={props.fits} take={props.takeFit} />
              ) : null
            }
            ListEmptyComponent={<Text tone="slate">{words().foundNone(sought)}</Text>}
            renderItem={({ item }) =>
              item.is === 'group' ? (
                <Text kind="small" tone="slate" role="heading" aria-level={3} style={styles.group}>
                  {item.name}
                </Text>
              ) : (
                <ReplyRow reply={item.reply} take={() => props.take(item.reply)} />
              )
            }
          />
          <Row>
            {write}
            <Button
              look="bare"
              label={words().tray.all}
              onPress={() => router.navigate('/house/replies')}
            />
          </Row>
        </>
      )}
    </View>
  );
};

export const trayNames = () => words().tray;

const styles = StyleSheet.create({
  tray: { gap: 8, paddingVertical: 8, borderTopWidth: 1 },
  list: { maxHeight: 260 },
  group: { paddingTop: 10, paddingBottom: 2 },
  reply: { minHeight: touch, paddingVertical: 8, borderBottomWidth: 1 },
});
