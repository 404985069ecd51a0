import type { Row } from '@porch/contract/entries';
import { useDeferredValue, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Sheet } from '../../../kit/sheets/sheet';
import { Failed } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { lastSaid } from '../../persons/parts/last-said';
import { PersonRow } from '../../persons/parts/person-row';
import { useSearch } from '../../search/data/search';
import { words } from '../words';

/** So many fit into a sheet; whoever is not among them is found by saying more. */
const SHOWN_MOST = 8;

/** What tells somebody apart best of what they said of themselves. */
const bestGuess = ({ state }: Row): string => state.email || state.phone || state.name;

/** Asks whose conversation is this person's as well. */
export const SamePersonSheet = (props: {
  row: Row;
  choose: (other: Row) => void;
  close: () => void;
}) => {
  const { row } = props;
  const now = useNow(MINUTE_MS);
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
    <Sheet title={words().who.sameTitle} close={props.close}>
      <Text tone="slate">{words().who.sameMore}</Text>
      <Field
        label={words().who.sameSearch}
        value={typed}
        onChangeText={setTyped}
        maxLength={200}
        inputMode="search"
        autoCapitalize="none"
        autoCorrect={false}
      />
      {sought && search.isError ? <Failed retry={() => void search.refetch()} /> : null}
      {sought && search.data && rows.length === 0 ? (
        <Text tone="slate" role="status">
          {words().who.sameNone}
        </Text>
      ) : null}
      <View role="list" style={styles.list}>
        {rows.map((one) => (
          <PersonRow
            key={one.id}
            row={one}
            role="button"
            when={momentInWords(one.state.lastAt, now, zone)}
            said={lastSaid(one)}
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
