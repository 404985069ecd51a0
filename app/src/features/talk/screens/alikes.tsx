import type { Row } from '@porch/contract/entries';
import { StyleSheet, View } from 'react-native';
import { Problem } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useDoorNames } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { siteKind } from '../../doors/parts/site-kind';
import { useCalling } from '../../persons/parts/calling';
import { useAlike, useNotSame } from '../data/alike';
import { words } from '../words';

/** Who may be the same person, with the reasons; it is for whoever looks to say. */
export const Alikes = (props: { row: Row; choose: (other: Row) => void }) => {
  const { row, choose } = props;
  const { data = [] } = useAlike(row);
  const { mutate, error, isPending } = useNotSame(row.id);
  const { nameOf } = useCalling();
  const doorName = useDoorNames();
  const said = words().alike;
  if (data.length === 0) return null;
  return (
    <View style={styles.all}>
      <Text kind="small" tone="slate" role="heading" aria-level={3}>
        {said.title}
      </Text>
      {data.map((one) => {
        const name = nameOf(one.row);
        const who = `${name} · ${doorName(one.row.doorId) || siteKind()}`;
        return (
          <View key={one.row.id} style={styles.one}>
            <Text>{who}</Text>
            <Text kind="small" tone="slate">
              {one.reasons.map((reason) => said.reasons[reason]).join(' · ')}
            </Text>
            <View style={styles.deeds}>
              <Button
                label={said.same}
                aria-label={said.sameAs(who)}
                onPress={() => choose(one.row)}
              />
              <Button
                look="bare"
                label={said.notSame}
                aria-label={said.notSameAs(who)}
                disabled={isPending}
                onPress={() => mutate(one.row.id)}
              />
            </View>
          </View>
        );
      })}
      <Problem text={problemOf(error)} />
    </View>
  );
};

const styles = StyleSheet.create({
  all: { gap: 12 },
  one: { gap: 2 },
  deeds: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
});
