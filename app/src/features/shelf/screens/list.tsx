import type { ShelfShown } from '@porch/contract/shelf';
import { priceInWords, type ShelfKind, shelfKinds } from '@porch/core/shelf';
import { useDeferredValue, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Photo } from '../../../kit/drawn/photo';
import { Choice } from '../../../kit/fields/choice';
import { SearchField } from '../../../kit/fields/search-field';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { corner, touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { wayTo } from '../../../kit/way';
import { kitWords } from '../../../kit/words';
import { ListPage } from '../../../shell/frame/list-page';
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
    <ListPage
      title={words().title}
      more={words().more}
      add={{ label: words().add, to: '/house/shelf/new' }}
      items={things}
      keyOf={({ id }) => id}
      row={(thing) => <ThingRow thing={thing} />}
      finding={
        count > 0 ? (
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
        ) : null
      }
      none={
        count > 0 ? (
          <Text tone="slate" role="status">
            {sought ? words().foundNone(sought) : words().count(0)}
          </Text>
        ) : (
          <Empty title={words().none.title} more={words().none.more} />
        )
      }
      next={
        shelf.hasNextPage
          ? {
              label: words().moreOfIt,
              isBusy: shelf.isFetchingNextPage,
              do: () => void shelf.fetchNextPage(),
            }
          : null
      }
      foot={isOwner ? <ShelfTablesPart /> : null}
    />
  );
};

const photo = { width: 48, height: 48, objectFit: 'cover', borderRadius: corner } as const;

const styles = StyleSheet.create({
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
