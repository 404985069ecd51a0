import type { Row } from '@porch/contract/entries';
import { useDeferredValue, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { useZone } from '../data/house';
import { useSearch } from '../data/search';
import { DoorPlate } from '../parts/door-plate';
import { Field } from '../parts/field';
import { RowName } from '../parts/row-name';
import { Sheet } from '../parts/sheet';
import { Failed } from '../parts/states';
import { Words } from '../parts/words';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { momentInWords } from '../wording/times';

/** So many fit into a sheet; whoever is not among them is found by saying more. */
const SHOWN_MOST = 8;

/** What tells somebody apart best of what they said of themselves. */
const bestGuess = ({ state }: Row): string => state.email || state.phone || state.name;

/** Asks whose conversation is this person's as well. */
export const SamePersonSheet = (props: {
  row: Row;
  now: number;
  choose: (other: Row) => void;
  close: () => void;
}) => {
  const { row, now } = props;
  const theme = useTheme();
  const zone = useZone();
  const [typed, setTyped] = useState(() => bestGuess(row));
  const sought = useDeferredValue(typed.trim());
  const search = useSearch(sought);
  const found = new Map(
    (search.data?.pages ?? [])
      .flatMap((page) => page.found)
      .filter((one) => one.row.id !== row.id)
      .map((one) => [one.row.id, one.row]),
  );
  const rows = sought ? [...found.values()].slice(0, SHOWN_MOST) : [];
  return (
    <Sheet title={words.who.sameTitle} close={props.close}>
      <Words tone="slate">{words.who.sameMore}</Words>
      <Field
        label={words.who.sameSearch}
        value={typed}
        onChangeText={setTyped}
        maxLength={200}
        inputMode="search"
        autoCapitalize="none"
        autoCorrect={false}
      />
      {sought && search.isError ? <Failed retry={() => void search.refetch()} /> : null}
      {sought && search.data && rows.length === 0 ? (
        <Words tone="slate" role="status">
          {words.who.sameNone}
        </Words>
      ) : null}
      <View role="list">
        {rows.map((one) => (
          <View key={one.id} role="listitem">
            <Pressable
              role="button"
              onPress={() => props.choose(one)}
              style={[styles.row, { borderColor: theme.seam }]}
            >
              <DoorPlate />
              <View style={styles.grow}>
                <View style={styles.top}>
                  <RowName row={one} />
                  <Words kind="small" tone="slate">
                    {momentInWords(one.state.lastAt, now, zone)}
                  </Words>
                </View>
                <Words kind="second" tone="slate" numberOfLines={1}>
                  {one.state.lastWords || words.line.file}
                </Words>
              </View>
            </Pressable>
          </View>
        ))}
      </View>
    </Sheet>
  );
};

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    minHeight: 60,
    paddingVertical: 8,
    borderBottomWidth: 1,
  },
  grow: { flex: 1 },
  top: { flexDirection: 'row', alignItems: 'baseline', gap: 8 },
});
