import { type Cards, type RowsTaken, withCardRows } from '@porch/core/cards';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { View } from 'react-native';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { chooseFiles } from '../../../shell/pictures/file-chooser';
import { useHouse } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { cardTable, type TableForm, useCardRows } from '../data/card-tables';
import { words } from '../words';

const said = () => words().asked.tables;

const REFUSED_SHOWN_MOST = 20;
const accepts = { csv: '.csv,.tsv,.txt,text/csv', json: '.json,application/json' };

const Report = ({ taken }: { taken: RowsTaken }) => {
  const { addedCount, changedCount, sameCount, refused } = taken;
  return (
    <View>
      <Done text={said().done(addedCount, changedCount, sameCount)} />
      {refused.slice(0, REFUSED_SHOWN_MOST).map(({ row, question, why }) => (
        <Text key={`${row} ${why}`} kind="second" tone="brick">
          {said().row(row, question, said().whys[why])}
        </Text>
      ))}
      {refused.length > REFUSED_SHOWN_MOST ? (
        <Text kind="second">{said().more(refused.length - REFUSED_SHOWN_MOST)}</Text>
      ) : null}
    </View>
  );
};

/** What is asked often, in and out as tables. What is read in is part of the draft, and on no page yet. */
export const CardTables = (props: {
  doorId: string;
  language: string;
  all: Cards;
  change: (all: Cards) => void;
}) => {
  const { doorId, language, all, change } = props;
  const rows = useCardRows(doorId);
  const team = useHouse().data?.team ?? [];
  const [taken, setTaken] = useState<RowsTaken | null>(null);
  const memberIdOf = (name: string): string | null =>
    team.find((one) => !one.hasLeft && one.name.toLowerCase() === name.toLowerCase())?.id ?? null;
  const choose = (form: TableForm) => (): void =>
    chooseFiles(
      ([file]) => {
        if (!file) return;
        setTaken(null);
        rows.mutate(
          { form, file },
          {
            onSuccess: (read) => {
              const next = withCardRows(all, read.rows, { language, newId: nanoid, memberIdOf });
              change(next.all);
              setTaken(next);
            },
          },
        );
      },
      { accept: accepts[form] },
    );
  const give = (form: TableForm, label: string) => {
    const hrefAttrs = { download: `asked-often.${form}` };
    return (
      <Button
        look="bare"
        role="link"
        label={label}
        {...{ href: cardTable(doorId, form), hrefAttrs }}
      />
    );
  };
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().intro}
      </Text>
      <Row>
        <Button label={said().takeCsv} disabled={rows.isPending} onPress={choose('csv')} />
        <Button label={said().takeJson} disabled={rows.isPending} onPress={choose('json')} />
        {give('csv', said().giveCsv)}
        {give('json', said().giveJson)}
      </Row>
      {taken ? <Report taken={taken} /> : null}
      <Problem text={problemOf(rows.error)} />
    </Section>
  );
};
