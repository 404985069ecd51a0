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
      {/* What tells somebody without a name apart stands at the end of what they are called. */}
      <Text kind="name" numberOfLines={isNamed ? 1 : 2} style={styles.name}>
        {name}
      </Text>
    </>
  );
};

const styles = StyleSheet.create({ mark: { alignSelf: 'center' }, name: { flex: 1 } });
