import type { ShelfShown } from '@porch/contract/shelf';
import { priceInWords, type ShelfKind, shelfKinds } from '@porch/core/shelf';
import { router } from 'expo-router';
import Plus from 'lucide-react-native/icons/plus';
import { useDeferredValue, useState } from 'react';
import { FlatList, Pressable, StyleSheet, View } from 'react-native';
import { Photo } from '../../../kit/drawn/photo';
import { Choice } from '../../../kit/fields/choice';
import { Row } from '../../../kit/fields/form';
import { SearchField } from '../../../kit/fields/search-field';
import { Button } from '../../../kit/press';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { corner, touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { wayTo } from '../../../kit/way';
import { kitWords } from '../../../kit/words';
import { HouseTop } from '../../../shell/frame/house-page';
import { fileAddress } from '../../../shell/pictures/addresses';
import { useHouse } from '../../../shell/session/house';
import { useShelf } from '../data/shelf';
import { words } from '../words';
import { ShelfTablesPart } from './tables-part';

const inBrief = ({ kind, price, currency, stock, code, address, isOver }: ShelfShown): string =>
  [
    words().kinds[kind],
    priceInWords(price, currency, kitWords().locale),
    stock ? words().editor.stocks[stock] : '',
    code,
    address,
    isOver ? words().over : '',
  ]
    .filter(Boolean)
    .join(' · ');

const ThingRow = ({ thing }: { thing: ShelfShown }) => {
  const theme = useTheme();
  return (
    <Pressable
      {...wayTo(`/house/shelf/${thing.id}`)}
      aria-label={words().edit(thing.name)}
      style={[styles.thing, { borderColor: theme.seam }]}
    >
      {thing.picture ? (
        <Photo source={fileAddress(thing.picture.id, 'thumbnail')} alt="" style={photo} />
      ) : null}
      <View style={styles.words}>
        <Text kind="label">{thing.name}</Text>
        <Text kind="second" tone={thing.isOver ? 'brick' : 'slate'} numberOfLines={1}>
          {inBrief(thing)}
        </Text>
      </View>
    </Pressable>
  );
};

/** All that stands on the shelf: to be found, written, and carried in and out as files. */
export const ShelfList = () => {
  const theme = useTheme();
  const [kind, setKind] = useState<ShelfKind | 'all'>('all');
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim());
  const isOwner = useHouse().data?.me?.role === 'owner';
  const shelf = useShelf(kind === 'all' ? null : kind, sought);
  const { data, isError, refetch } = shelf;
  if (isError && !data) return <Failed retry={() => void refetch()} />;
  if (!data) return <RowsComing />;
  const things = data.pages.flatMap((page) => page.things);
  const count = data.pages[0]?.count ?? 0;
  return (
    <FlatList
      data={things}
      keyExtractor={({ id }) => id}
      contentContainerStyle={styles.page}
      initialNumToRender={20}
      keyboardShouldPersistTaps="handled"
      renderItem={({ item }) => <ThingRow thing={item} />}
      ListHeaderComponent={
        <View style={styles.head}>
          <HouseTop title={words().title} isBehind />
          <Text tone="slate">{words().more}</Text>
          <Row>
            <Button
              look="main"
              icon={<Plus size={20} color={theme.onInk} aria-hidden />}
              label={words().add}
              onPress={() => router.navigate('/house/shelf/new')}
            />
          </Row>
          {count > 0 ? (
            <>
              <Text role="status">{words().count(count)}</Text>
              <SearchField label={words().find} value={typed} change={setTyped} />
              <Choice
                label={words().kindsLabel}
                isLabelHidden
                options={[
                  ['all', words().all] as const,
                  ...shelfKinds.map((one) => [one, words().kinds[one]] as const),
                ]}
                value={kind}
                onChange={setKind}
              />
            </>
          ) : null}
        </View>
      }
      ListEmptyComponent={
        count > 0 ? (
          <Text tone="slate" role="status">
            {sought ? words().foundNone(sought) : words().count(0)}
          </Text>
        ) : (
          <Empty title={words().none.title} more={words().none.more} />
        )
      }
      ListFooterComponent={
        <View style={styles.foot}>
          {shelf.hasNextPage ? (
            <Row>
              <Button
                label={words().moreOfIt}
                disabled={shelf.isFetchingNextPage}
                onPress={() => void shelf.fetchNextPage()}
              />
            </Row>
          ) : null}
          {isOwner ? <ShelfTablesPart /> : null}
        </View>
      }
    />
  );
};

const photo = { width: 48, height: 48, objectFit: 'cover', borderRadius: corner } as const;

const styles = StyleSheet.create({
  page: { padding: 16, maxWidth: 720, width: '100%', alignSelf: 'center' },
  head: { gap: 16, paddingBottom: 8 },
  foot: { gap: 20, paddingTop: 20 },
  thing: {
    minHeight: touch,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    paddingVertical: 10,
    borderBottomWidth: 1,
  },
  words: { flex: 1, gap: 2 },
});
