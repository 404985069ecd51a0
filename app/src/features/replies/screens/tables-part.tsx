import { Problem, Section } from '../../../kit/fields/form';
import { Text } from '../../../kit/text';
import { problemOf } from '../../../shell/session/problems';
import { TableButtons } from '../../../shell/tables/table-buttons';
import { TableReport } from '../../../shell/tables/table-report';
import { tableAddress, useTakeTable } from '../data/replies';
import { words } from '../words';

const said = () => words().tables;

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
      {take.data && !take.isPending ? <TableReport taken={take.data} whys={said().whys} /> : null}
      <Problem text={problemOf(take.error)} />
    </Section>
  );
};
