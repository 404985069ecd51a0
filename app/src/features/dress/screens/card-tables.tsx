import { type Cards, type RowsTaken, withCardRows } from '@porch/core/cards';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { View } from 'react-native';
import { Done, Problem, Section } from '../../../kit/fields/form';
import { Text } from '../../../kit/text';
import { useHouse } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { TableButtons, type TableForm } from '../../../shell/tables/table-buttons';
import { cardTable, useCardRows } from '../data/card-tables';
import { words } from '../words';

const said = () => words().asked.tables;

const REFUSED_SHOWN_MOST = 20;

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
  const take = (form: TableForm, file: File): void => {
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
  };
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().intro}
      </Text>
      <TableButtons
        name="asked-often"
        address={(form) => cardTable(doorId, form)}
        isReading={rows.isPending}
        take={take}
      />
      {taken ? <Report taken={taken} /> : null}
      <Problem text={problemOf(rows.error)} />
    </Section>
  );
};
