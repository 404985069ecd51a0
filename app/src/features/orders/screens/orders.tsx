import type { Orders, OrderTyped } from '@porch/contract/orders';
import { dayInWords } from '@porch/core/days/words';
import { orderKey } from '@porch/core/orders/key';
import { useDeferredValue, useState } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import { AskFirst } from '../../../kit/fields/ask-first';
import { Field } from '../../../kit/fields/field';
import { Copy, Done, Problem, Row, Section } from '../../../kit/fields/form';
import { SearchField } from '../../../kit/fields/search-field';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { wayTo } from '../../../kit/way';
import { kitWords } from '../../../kit/words';
import { ForDeveloper } from '../../../shell/frame/for-developer';
import { ListPage } from '../../../shell/frame/list-page';
import { chooseFiles } from '../../../shell/pictures/file-chooser';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { TableReport } from '../../../shell/tables/table-report';
import { shellWords } from '../../../shell/words';
import { whyInWords } from '../../../shell/words/why';
import {
  NEW,
  useDropOrders,
  useOrderPages,
  useOrders,
  useSetShop,
  useShopKey,
  useTakeOrders,
  useTryShop,
} from '../data/orders';
import { words } from '../words';

const Dropping = ({ count }: { count: number }) => {
  const { mutate, error, isPending } = useDropOrders();
  const { drop, dropAsk, dropDo, dropNot } = words();
  return count === 0 ? null : (
    <AskFirst
      words={{ begin: drop, ask: dropAsk(count), confirm: dropDo, leave: dropNot }}
      isBusy={isPending}
      problem={problemOf(error)}
      run={(done) => mutate(undefined, { onSuccess: done })}
    />
  );
};

const Table = ({ orders, take }: { orders: Orders; take: ReturnType<typeof useTakeOrders> }) => {
  const { progress, last } = orders;
  const isReading = take.isPending || progress !== null;
  return (
    <Section title={words().table}>
      <Text kind="second" tone="slate">
        {words().tableMore}
      </Text>
      <Row>
        <Button
          label={words().take}
          disabled={isReading}
          onPress={() =>
            chooseFiles(([file]) => file && take.mutate(file), {
              accept: '.csv,.tsv,.txt,text/csv',
            })
          }
        />
      </Row>
      {isReading ? (
        <Text role="status">
          {shellWords().tables.reading(progress?.share ?? 0, progress?.rows ?? 0)}
        </Text>
      ) : last ? (
        <TableReport taken={last} whys={words().whys} />
      ) : null}
      <Problem text={problemOf(take.error)} />
      <Dropping count={orders.count} />
    </Section>
  );
};

const TryShop = () => {
  const [number, setNumber] = useState('');
  const { mutate, data, error, isPending } = useTryShop();
  const [order] = data?.orders ?? [];
  return (
    <>
      <Field label={words().try} value={number} maxLength={40} onChangeText={setNumber} />
      <Row>
        <Button
          label={words().tryDo}
          disabled={isPending || number.trim() === ''}
          onPress={() => mutate(number.trim())}
        />
      </Row>
      {data && !isPending ? (
        <Text role="status">
          {order
            ? [order.number, order.state, dayInWords(order.expectedOn, kitWords().locale)]
                .filter(Boolean)
                .join(' · ')
            : words().tryNone}
        </Text>
      ) : null}
      <Problem text={problemOf(error)} />
    </>
  );
};

const Shop = ({ orders }: { orders: Orders }) => {
  const { shop } = orders;
  const [url, setUrl] = useState(shop?.url ?? '');
  const set = useSetShop();
  const key = useShopKey();
  return (
    <ForDeveloper page="orders" more={words().shopMore} isOpenAtFirst={shop !== null}>
      <Field
        label={words().url}
        more={words().urlMore}
        value={url}
        placeholder="https://"
        inputMode="url"
        autoCapitalize="none"
        maxLength={2_000}
        onChangeText={setUrl}
        problem={problemOf(set.error, 'url')}
      />
      <Row>
        <Button
          label={words().save}
          disabled={set.isPending}
          onPress={() => set.mutate(url.trim(), { onSuccess: () => key.reset() })}
        />
        {set.isSuccess ? <Done text={words().saved} /> : null}
      </Row>
      <Problem text={problemElsewhere(set.error, ['url'])} />
      {shop ? (
        <>
          {shop.problem ? (
            <Text role="alert" tone="brick">
              {words().failing(words().shopWhys[shop.problem] ?? whyInWords(shop.problem))}
            </Text>
          ) : null}
          <Text kind="label">{words().key}</Text>
          {key.data?.key ? (
            <Copy text={key.data.key} label={words().copyKey} isCode />
          ) : (
            <Row>
              <Button look="bare" label={words().showKey} onPress={() => key.mutate()} />
            </Row>
          )}
          <Problem text={problemOf(key.error)} />
          <TryShop />
        </>
      ) : null}
    </ForDeveloper>
  );
};

const OrderRow = ({ order }: { order: OrderTyped }) => {
  const theme = useTheme();
  const { number, state, email, phone, expectedOn } = order;
  const expected = expectedOn ? words().expected(dayInWords(expectedOn, kitWords().locale)) : '';
  return (
    <Pressable
      {...wayTo(`/house/order/${encodeURIComponent(orderKey(number))}`)}
      aria-label={words().edit(number)}
      style={[styles.order, { borderColor: theme.seam }]}
    >
      <Text kind="label">{number}</Text>
      <Text kind="second">{[state, expected].filter(Boolean).join(', ')}</Text>
      <Text kind="second" tone="slate" numberOfLines={1}>
        {[email, phone].filter(Boolean).join(' · ')}
      </Text>
    </Pressable>
  );
};

/** Orders that visitors and the team can look up: written by hand, from tables, and from the business's shop. */
export const OrdersScreen = () => {
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim());
  const take = useTakeOrders();
  const { data: orders, isError, refetch } = useOrders(take.isPending);
  const pages = useOrderPages(sought);
  if (isError && !orders) return <Failed retry={() => void refetch()} />;
  if (pages.isError && !pages.data) return <Failed retry={() => void pages.refetch()} />;
  if (!orders || !pages.data) return <RowsComing />;
  return (
    <ListPage
      title={words().title}
      more={words().more}
      add={{ label: words().add, to: `/house/order/${NEW}` }}
      items={pages.data.pages.flatMap((page) => page.orders)}
      keyOf={({ number }) => number}
      row={(order) => <OrderRow order={order} />}
      finding={
        <>
          <Text role="status">{words().count(orders.count)}</Text>
          {orders.count > 0 ? (
            <SearchField label={words().find} value={typed} change={setTyped} />
          ) : null}
        </>
      }
      none={
        sought ? (
          <Text tone="slate" role="status">
            {words().foundNone(sought)}
          </Text>
        ) : null
      }
      next={
        pages.hasNextPage
          ? {
              label: words().moreOfIt,
              isBusy: pages.isFetchingNextPage,
              do: () => void pages.fetchNextPage(),
            }
          : null
      }
      foot={
        <>
          <Table orders={orders} take={take} />
          <Shop orders={orders} />
        </>
      }
    />
  );
};

const styles = StyleSheet.create({
  order: { minHeight: touch, gap: 2, paddingVertical: 10, borderBottomWidth: 1 },
});
