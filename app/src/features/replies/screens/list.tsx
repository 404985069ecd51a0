import type { QuickReply } from '@porch/contract/replies';
import { useDeferredValue, useState } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import { SearchField } from '../../../kit/fields/search-field';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { wayTo } from '../../../kit/way';
import { ListPage } from '../../../shell/frame/list-page';
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
  const { data, isError, refetch } = useQuickReplies();
  const index = useRepliesIndex();
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim());
  if (isError && !data) return <Failed retry={() => void refetch()} />;
  if (!data) return <RowsComing />;
  const found = index.search(sought);
  return (
    <ListPage
      title={words().title}
      more={words().more}
      add={{ label: words().add, to: '/house/reply/new' }}
      items={found}
      keyOf={({ id }) => id}
      row={(reply) => <ReplyRow reply={reply} />}
      finding={
        data.length > 0 ? (
          <SearchField label={words().search} value={typed} change={setTyped} />
        ) : null
      }
      none={
        sought ? (
          <Text tone="slate">{words().foundNone(sought)}</Text>
        ) : (
          <Empty title={words().none.title} more={words().none.more} />
        )
      }
      foot={
        <>
          <TablesPart />
          <OwnWordsPart />
        </>
      }
    />
  );
};

const styles = StyleSheet.create({
  reply: { minHeight: touch, gap: 2, paddingVertical: 12, borderBottomWidth: 1 },
});
