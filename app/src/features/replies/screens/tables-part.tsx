import type { TakenIn } from '@porch/contract/replies';
import { View } from 'react-native';
import { Done, Problem, Section } from '../../../kit/fields/form';
import { Text } from '../../../kit/text';
import { problemOf } from '../../../shell/session/problems';
import { TableButtons } from '../../../shell/tables/table-buttons';
import { tableAddress, useTakeTable } from '../data/replies';
import { words } from '../words';

const said = () => words().tables;

const Report = ({ taken }: { taken: TakenIn }) => {
  const { addedCount, changedCount, sameCount, refused, refusedCount } = taken;
  return (
    <View>
      <Done text={said().done(addedCount, changedCount, sameCount)} />
      {refusedCount > 0 ? <Text tone="brick">{said().refused(refusedCount)}</Text> : null}
      {refused.map(({ row, what, why }) => (
        <Text key={row} kind="second">
          {said().row(row, what, said().whys[why])}
        </Text>
      ))}
      {refusedCount > refused.length ? (
        <Text kind="second">{said().restRefused(refusedCount - refused.length)}</Text>
      ) : null}
    </View>
  );
};

/** Quick replies in and out, as tables. */
export const TablesPart = () => {
  const take = useTakeTable();
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      <TableButtons
        name="quick-replies"
        address={tableAddress}
        isReading={take.isPending}
        take={(form, file) => take.mutate({ form, file })}
      />
      {take.isPending ? <Text role="status">{said().reading}</Text> : null}
      {take.data && !take.isPending ? <Report taken={take.data} /> : null}
      <Problem text={problemOf(take.error)} />
    </Section>
  );
};
