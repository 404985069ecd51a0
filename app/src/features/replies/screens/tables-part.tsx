import type { TakenIn } from '@porch/contract/replies';
import { View } from 'react-native';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { chooseFiles } from '../../../shell/pictures/file-chooser';
import { problemOf } from '../../../shell/session/problems';
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

const accepts = { csv: '.csv,.tsv,.txt,text/csv', json: '.json,application/json' };

/** A table to be kept: a link, which leaves the app where it is. */
const Give = ({ form, label }: { form: 'csv' | 'json'; label: string }) => {
  const hrefAttrs = { download: `quick-replies.${form}` };
  return (
    <Button look="bare" role="link" label={label} {...{ href: tableAddress(form), hrefAttrs }} />
  );
};

/** Quick replies in and out, as tables. */
export const TablesPart = () => {
  const take = useTakeTable();
  const choose = (form: 'csv' | 'json') => (): void =>
    chooseFiles(([file]) => file && take.mutate({ form, file }), { accept: accepts[form] });
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      <Row>
        <Button label={said().takeCsv} disabled={take.isPending} onPress={choose('csv')} />
        <Button label={said().takeJson} disabled={take.isPending} onPress={choose('json')} />
        <Give form="csv" label={said().giveCsv} />
        <Give form="json" label={said().giveJson} />
      </Row>
      {take.isPending ? <Text role="status">{said().reading}</Text> : null}
      {take.data && !take.isPending ? <Report taken={take.data} /> : null}
      <Problem text={problemOf(take.error)} />
    </Section>
  );
};
