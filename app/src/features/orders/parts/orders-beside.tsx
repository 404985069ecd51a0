import type { Row } from '@porch/contract/entries';
import type { OrdersBeside as OrdersBesideData } from '@porch/contract/orders';
import { dayInWords } from '@porch/core/days/words';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { useOrdersBeside } from '../data/orders';
import { words } from '../words';

/** One of them. What anybody could have claimed is not put into an answer by one tap. */
const OrderBeside = ({
  order: { number, state, expectedOn, link, words: text, shownBy },
  putIn,
}: {
  order: OrdersBesideData['orders'][number];
  putIn: (text: string) => void;
}) => {
  const [isAsked, setAsked] = useState(false);
  const said = words();
  const isClaim = shownBy === 'claim';
  return (
    <View style={styles.order}>
      <Text>
        {number} · {state}
      </Text>
      {expectedOn ? (
        <Text kind="small" tone="slate">
          {said.expected(dayInWords(expectedOn, kitWords().locale))}
        </Text>
      ) : null}
      <Text
        kind="small"
        tone={isClaim ? 'ember' : 'moss'}
        {...(isClaim && isAsked ? { role: 'alert' as const } : {})}
      >
        {said.shownBy[shownBy]}
      </Text>
      <View style={styles.deeds}>
        {isClaim && isAsked ? (
          <Button
            look="bare"
            label={said.putInAnyway}
            aria-label={said.putInAnywayOf(number)}
            onPress={() => putIn(text)}
          />
        ) : (
          <Button
            look="bare"
            label={said.putInShort}
            aria-label={said.putIn(number)}
            onPress={() => (isClaim ? setAsked(true) : putIn(text))}
          />
        )}
        {link ? (
          <Button
            look="bare"
            role="link"
            label={said.follow}
            {...{ href: link, hrefAttrs: { target: '_blank', rel: 'noopener noreferrer' } }}
          />
        ) : null}
      </View>
    </View>
  );
};

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
      {orders.map((order) => (
        <OrderBeside key={order.number} order={order} putIn={putIn} />
      ))}
    </View>
  );
};

const styles = StyleSheet.create({
  all: { gap: 8 },
  order: { gap: 2 },
  deeds: { flexDirection: 'row', flexWrap: 'wrap', marginLeft: -8 },
});
