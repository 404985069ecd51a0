import type { Row } from '@porch/contract/entries';
import { StyleSheet, View } from 'react-native';
import { OwnMark } from '../../../kit/drawn/own-mark';
import { Text } from '../../../kit/text';
import { useCalling } from './calling';

/** What somebody is called in a list, with their own mark while they have no name. */
export const RowName = ({ row }: { row: Row }) => {
  const name = useCalling().nameOf(row);
  const isNamed = row.state.name !== '';
  return (
    <>
      {isNamed ? null : (
        <View style={styles.mark}>
          <OwnMark id={row.id} />
        </View>
      )}
      {/* On one line, whatever it is: a name that wraps would push every row below it down. */}
      <Text kind="name" numberOfLines={1} style={styles.name}>
        {name}
      </Text>
    </>
  );
};

const styles = StyleSheet.create({ mark: { alignSelf: 'center' }, name: { flex: 1 } });
