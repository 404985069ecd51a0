import type { SearchPage } from '@porch/contract/line';
import { searchableText } from '@porch/core/conversation';
import { useDeferredValue, useState } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Button } from '../../../kit/press';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { shellWords } from '../../../shell/words';
import { groupName } from '../../line/parts/group-name';
import { useSaid } from '../../persons/parts/last-said';
import { PersonRow } from '../../persons/parts/person-row';
import { noteSought, soughtBefore, useSearch } from '../data/search';
import { words } from '../words';

type Found = SearchPage['found'][number];

const FoundRow = ({ found, now, zone }: { found: Found; now: number; zone: string }) => {
  const { row, entry } = found;
  const { saidBy } = useSaid();
  const said = searchableText(entry).replace(/\s+/g, ' ');
  return (
    <PersonRow
      row={row}
      when={`${groupName(row.group)} · ${momentInWords(entry.at, now, zone)}`}
      said={saidBy(entry.kind === 'team-said' ? entry.memberId : null, said)}
      lines={2}
      to={`/line/${row.id}`}
    />
  );
};

/** Search by words and by person, over everything ever said. */
export const Search = () => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const [typed, setTyped] = useState(soughtBefore);
  const sought = useDeferredValue(typed.trim());
  const search = useSearch(sought);
  const pages = search.data?.pages ?? [];
  const seen = new Set<string>();
  const found = pages
    .flatMap((page) => page.found)
    .filter(({ row }) => !seen.has(row.id) && seen.add(row.id));

  return (
    <View style={styles.whole}>
      <View style={styles.field}>
        <Field
          label={words().label}
          value={typed}
          onChangeText={(text) => {
            noteSought(text);
            setTyped(text);
          }}
          selectTextOnFocus
          autoFocus
          maxLength={200}
          inputMode="search"
          autoCapitalize="none"
          autoCorrect={false}
        />
        {sought && search.data ? (
          <Text kind="second" tone="slate" role="status">
            {found.length > 0 ? words().found(found.length) : words().none(sought)}
          </Text>
        ) : null}
      </View>
      {!sought ? <Empty title={shellWords().places.search} more={words().empty} /> : null}
      {sought && search.isError ? <Failed retry={() => void search.refetch()} /> : null}
      {sought && search.isLoading ? <RowsComing /> : null}
      {sought && search.data && found.length === 0 ? (
        <Text tone="slate" style={styles.none}>
          {words().noneMore}
        </Text>
      ) : null}
      {sought && found.length > 0 ? (
        <View role="list" style={styles.grow}>
          <FlatList
            data={found}
            keyExtractor={({ row }) => row.id}
            renderItem={({ item }) => <FoundRow found={item} now={now} zone={zone} />}
            ListFooterComponent={
              search.hasNextPage ? (
                <View role="listitem" style={styles.none}>
                  <Button
                    label={words().older}
                    disabled={search.isFetchingNextPage}
                    onPress={() => void search.fetchNextPage()}
                  />
                </View>
              ) : null
            }
          />
        </View>
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1, width: '100%', maxWidth: 760, alignSelf: 'center' },
  grow: { flex: 1 },
  field: { padding: 16, gap: 8 },
  none: { padding: 16 },
});
