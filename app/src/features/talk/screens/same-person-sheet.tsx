import type { Row } from '@porch/contract/entries';
import { useDeferredValue, useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Sheet } from '../../../kit/sheets/sheet';
import { Failed } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { PersonChoices } from '../../persons/parts/person-choices';
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
      <PersonChoices rows={rows} choose={props.choose} />
    </Sheet>
  );
};
