import { AskFirst } from '../../../kit/fields/ask-first';
import { Problem, Section } from '../../../kit/fields/form';
import { Text } from '../../../kit/text';
import { problemOf } from '../../../shell/session/problems';
import { TableButtons } from '../../../shell/tables/table-buttons';
import { TableReport } from '../../../shell/tables/table-report';
import { shellWords } from '../../../shell/words';
import { shelfAddress, useDropShelf, useShelfTables, useTakeShelf } from '../data/shelf';
import { words } from '../words';

const Clearing = ({ count }: { count: number }) => {
  const { mutate, error, isPending } = useDropShelf();
  const { drop, dropAsk, dropDo, dropNot } = words().tables;
  return count === 0 ? null : (
    <AskFirst
      words={{ begin: drop, ask: dropAsk(count), confirm: dropDo, leave: dropNot }}
      isBusy={isPending}
      problem={problemOf(error)}
      run={(done) => mutate(undefined, { onSuccess: done })}
    />
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
