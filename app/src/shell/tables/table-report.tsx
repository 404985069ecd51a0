import type { Taken } from '@porch/contract/tables';
import { View } from 'react-native';
import { Done } from '../../kit/fields/form';
import { Text } from '../../kit/text';
import { shellWords } from '../words';

/** What became of a table: how much of it was taken, and of the rows that were not, why. */
export const TableReport = <Why extends string>(props: {
  taken: Taken<Why>;
  whys: Readonly<Record<Why, string>>;
}) => {
  const { addedCount, changedCount, sameCount, refused, refusedCount } = props.taken;
  const said = shellWords().tables;
  return (
    <View>
      <Done text={said.done(addedCount, changedCount, sameCount)} />
      {refusedCount > 0 ? <Text tone="brick">{said.refused(refusedCount)}</Text> : null}
      {refused.map(({ row, what, why }) => (
        <Text key={row} kind="second">
          {said.row(row, what, props.whys[why])}
        </Text>
      ))}
      {refusedCount > refused.length ? (
        <Text kind="second">{said.restRefused(refusedCount - refused.length)}</Text>
      ) : null}
    </View>
  );
};
