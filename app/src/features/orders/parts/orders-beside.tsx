import type { Row } from '@porch/contract/entries';
import { dayInWords } from '@porch/core/days/words';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { useOrdersBeside } from '../data/orders';
import { words } from '../words';

/** Orders of whoever stands in a conversation: those that they named, and those that are theirs. */
export const OrdersBeside = ({ row, putIn }: { row: Row; putIn: (text: string) => void }) => {
  const { data } = useOrdersBeside(row.id, row.state.lastSeq);
  const orders = data?.orders ?? [];
  if (orders.length === 0) return null;
  return (
    <View style={styles.all}>
      <Text kind="small" tone="slate" role="heading" aria-level={3}>
        {words().beside}
      </Text>
      {orders.map(({ number, state, expectedOn, link, words: text }) => (
        <View key={number} style={styles.order}>
          <Text>
            {number} · {state}
          </Text>
          {expectedOn ? (
            <Text kind="small" tone="slate">
              {words().expected(dayInWords(expectedOn, kitWords().locale))}
            </Text>
          ) : null}
          <View style={styles.deeds}>
            <Button
              look="bare"
              label={words().putInShort}
              aria-label={words().putIn(number)}
              onPress={() => putIn(text)}
            />
            {link ? (
              <Button
                look="bare"
                role="link"
                label={words().follow}
                {...{ href: link, hrefAttrs: { target: '_blank', rel: 'noopener noreferrer' } }}
              />
            ) : null}
          </View>
        </View>
      ))}
    </View>
  );
};

const styles = StyleSheet.create({
  all: { gap: 8 },
  order: { gap: 2 },
  deeds: { flexDirection: 'row', flexWrap: 'wrap', marginLeft: -8 },
});
