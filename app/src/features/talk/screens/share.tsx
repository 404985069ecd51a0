import type { Row as TalkRow } from '@porch/contract/entries';
import type { Group } from '@porch/core/conversation';
import { router } from 'expo-router';
import { Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Empty, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { HousePage } from '../../../shell/frame/house-page';
import { useStretch } from '../../line/data/line';
import { PersonChoices } from '../../persons/parts/person-choices';
import { useShared, useUseShared } from '../data/shared';
import { words } from '../words';

/** So many are in sight; anybody else is opened from the line, with what was shared kept until then. */
const SHOWN_MOST = 20;

const useTop = (group: Group): readonly TalkRow[] =>
  useStretch({ view: 'all', group }, true).data?.rows ?? [];

const Candidates = ({ choose }: { choose: (row: TalkRow) => void }) => {
  const rows = [...useTop('waiting'), ...useTop('note'), ...useTop('answered')];
  return (
    <PersonChoices rows={rows.slice(0, SHOWN_MOST)} label={words().share.newest} choose={choose} />
  );
};

/** What another app handed over, and for whom it is. Nothing is sent: it is put where it can be read over. */
export const Share = () => {
  const { data: shared, isPending } = useShared();
  const use = useUseShared();
  if (isPending) return <RowsComing />;
  if (!shared) {
    return (
      <Empty title={words().share.title} more={words().share.nothing}>
        <Button label={words().share.toLine} onPress={() => router.replace('/line')} />
      </Empty>
    );
  }
  const choose = async (row: TalkRow): Promise<void> => {
    await use(shared, row.id);
    router.replace(`/line/${row.id}`);
  };
  return (
    <HousePage title={words().share.title}>
      <Section title={words().share.what}>
        {shared.text ? <Text numberOfLines={4}>{shared.text}</Text> : null}
        {shared.files.map(({ id, name }) => (
          <Text key={id} kind="second" tone="slate">
            {name}
          </Text>
        ))}
        <Row>
          <Button
            look="bare"
            label={words().share.drop}
            onPress={() => void use(shared, null).then(() => router.replace('/line'))}
          />
        </Row>
      </Section>
      <Candidates choose={(row) => void choose(row)} />
    </HousePage>
  );
};
