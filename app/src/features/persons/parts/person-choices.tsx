import type { Row } from '@porch/contract/entries';
import { StyleSheet, View } from 'react-native';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { useSaid } from './last-said';
import { PersonRow } from './person-row';

/** People to choose one of, each with what was said last. */
export const PersonChoices = (props: {
  rows: readonly Row[];
  label?: string;
  choose: (row: Row) => void;
}) => {
  const now = useNow(MINUTE_MS);
  const zone = useZone();
  const { lastSaid } = useSaid();
  return (
    <View role="list" aria-label={props.label} style={styles.list}>
      {props.rows.map((row) => (
        <PersonRow
          key={row.id}
          row={row}
          when={momentInWords(row.state.lastAt, now, zone)}
          said={lastSaid(row)}
          lines={1}
          to={() => props.choose(row)}
        />
      ))}
    </View>
  );
};

// Rows have their own margin, as wide as that of what the list stands in.
const styles = StyleSheet.create({ list: { marginHorizontal: -16 } });
