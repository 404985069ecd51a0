import type { QuickReply } from '@porch/contract/replies';
import { router } from 'expo-router';
import Plus from 'lucide-react-native/icons/plus';
import { useDeferredValue, useState } from 'react';
import { FlatList, Pressable, StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { SearchField } from '../../../kit/fields/search-field';
import { Button } from '../../../kit/press';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { wayTo } from '../../../kit/way';
import { HouseTop } from '../../../shell/frame/house-page';
import { OwnWordsPart } from '../../writing/parts/own-words-part';
import { useQuickReplies, useRepliesIndex } from '../data/replies';
import { ReplyInBrief } from '../parts/reply-in-brief';
import { words } from '../words';
import { TablesPart } from './tables-part';

const ReplyRow = ({ reply }: { reply: QuickReply }) => {
  const theme = useTheme();
  const facts = [
    reply.group,
    reply.usedCount > 0 ? words().used(reply.usedCount) : words().neverUsed,
  ];
  return (
    <Pressable
      {...wayTo(`/house/reply/${reply.id}`)}
      aria-label={words().edit(reply.title)}
      style={[styles.reply, { borderColor: theme.seam }]}
    >
      <ReplyInBrief reply={reply} lines={2} />
      <Text kind="small" tone="slate">
        {facts.filter(Boolean).join(' · ')}
      </Text>
    </Pressable>
  );
};

/** All quick replies: to be found, written, and carried in and out as tables. */
export const Replies = () => {
  const theme = useTheme();
  const { data, isError, refetch } = useQuickReplies();
  const index = useRepliesIndex();
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim());
  if (isError && !data) return <Failed retry={() => void refetch()} />;
  if (!data) return <RowsComing />;
  const found = index.search(sought);
  const add = (
    <Row>
      <Button
        look="main"
        icon={<Plus size={20} color={theme.onInk} aria-hidden />}
        label={words().add}
        onPress={() => router.navigate('/house/reply/new')}
      />
    </Row>
  );
  return (
    <FlatList
      data={found}
      keyExtractor={({ id }) => id}
      contentContainerStyle={styles.page}
      initialNumToRender={20}
      renderItem={({ item }) => <ReplyRow reply={item} />}
      ListHeaderComponent={
        <View style={styles.head}>
          <HouseTop title={words().title} isBehind />
          <Text tone="slate">{words().more}</Text>
          {add}
          {data.length > 0 ? (
            <SearchField label={words().search} value={typed} change={setTyped} />
          ) : null}
        </View>
      }
      ListEmptyComponent={
        sought ? (
          <Text tone="slate">{words().foundNone(sought)}</Text>
        ) : (
          <Empty title={words().none.title} more={words().none.more} />
        )
      }
      ListFooterComponent={
        <View style={styles.foot}>
          <TablesPart />
          <OwnWordsPart />
        </View>
      }
    />
  );
};

const styles = StyleSheet.create({
  page: { padding: 16, maxWidth: 720, width: '100%', alignSelf: 'center' },
  head: { gap: 16, paddingBottom: 8 },
  foot: { gap: 20, paddingTop: 28 },
  reply: { minHeight: touch, gap: 2, paddingVertical: 12, borderBottomWidth: 1 },
});
