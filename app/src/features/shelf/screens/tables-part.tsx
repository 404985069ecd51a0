import { useState } from 'react';
import { View } from 'react-native';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { problemOf } from '../../../shell/session/problems';
import { TableButtons } from '../../../shell/tables/table-buttons';
import { TableReport } from '../../../shell/tables/table-report';
import { shellWords } from '../../../shell/words';
import { shelfAddress, useDropShelf, useShelfTables, useTakeShelf } from '../data/shelf';
import { words } from '../words';

const Clearing = ({ count }: { count: number }) => {
  const [isAsked, setAsked] = useState(false);
  const { mutate, error, isPending } = useDropShelf();
  const said = words().tables;
  if (count === 0) return null;
  return isAsked ? (
    <View role="alert">
      <Text tone="brick">{said.dropAsk(count)}</Text>
      <Row>
        <Button
          tone="brick"
          label={said.dropDo}
          disabled={isPending}
          onPress={() => mutate(undefined, { onSuccess: () => setAsked(false) })}
        />
        <Button look="bare" label={said.dropNot} onPress={() => setAsked(false)} />
      </Row>
      <Problem text={problemOf(error)} />
    </View>
  ) : (
    <Row>
      <Button look="bare" tone="brick" label={said.drop} onPress={() => setAsked(true)} />
    </Row>
  );
};

/** The shelf in and out as files, with what became of the last one, and how far one is that is being read. */
export const ShelfTablesPart = () => {
  const take = useTakeShelf();
  const { data } = useShelfTables(take.isPending);
  const said = words().tables;
  const progress = data?.progress ?? null;
  const isReading = take.isPending || progress !== null;
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      <TableButtons
        name="shelf"
        address={shelfAddress}
        isReading={isReading}
        take={(form, file) => take.mutate({ form, file })}
      />
      {isReading ? (
        <Text role="status">
          {shellWords().tables.reading(progress?.share ?? 0, progress?.rows ?? 0)}
        </Text>
      ) : data?.last ? (
        <TableReport taken={data.last} whys={said.whys} />
      ) : null}
      <Problem text={problemOf(take.error)} />
      <Clearing count={data?.count ?? 0} />
    </Section>
  );
};
