import type { Row } from '@porch/contract/entries';
import { useDeferredValue, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useZone } from '../data/house';
import { useSearch } from '../data/search';
import { Field } from '../parts/field';
import { PersonRow } from '../parts/person-row';
import { Sheet } from '../parts/sheet';
import { Failed } from '../parts/states';
import { Words } from '../parts/words';
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
      <View role="list" style={styles.list}>
        {rows.map((one) => (
          <PersonRow
            key={one.id}
            row={one}
            role="button"
            when={momentInWords(one.state.lastAt, now, zone)}
            said={one.state.lastWords || words.line.file}
            lines={1}
            press={() => props.choose(one)}
          />
        ))}
      </View>
    </Sheet>
  );
};

// Rows have their own margin, as wide as the sheet's.
const styles = StyleSheet.create({ list: { marginHorizontal: -16 } });
