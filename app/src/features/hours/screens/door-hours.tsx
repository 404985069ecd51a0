import type { Hours } from '@porch/contract/hours';
import type { Spans } from '@porch/core/hours/opening';
import { router } from 'expo-router';
import { Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { HousePage } from '../../../shell/frame/house-page';
import { useHouse } from '../../../shell/session/house';
import { shellWords } from '../../../shell/words';
import { useHours, useSetDoorHours } from '../data/hours';
import { SaveBar, useKeeping } from '../parts/save-bar';
import { WeekEditor } from '../parts/week-editor';
import { words } from '../words';

const EVERY_DAY: readonly Spans[] = Array.from({ length: 7 }, () => [{ from: 540, to: 1_050 }]);

const WeekOfDoor = (props: { id: string; name: string; hours: Hours; isFixed: boolean }) => {
  const { id, hours, isFixed } = props;
  const saved: readonly Spans[] | null = hours.doors[id] ?? null;
  const { draft, change, bar } = useKeeping(`door ${id}`, saved, useSetDoorHours(id));
  const said = words().doors;
  return (
    <HousePage title={said.ofDoor(props.name)} isBehind>
      <Text kind="second" tone="slate">
        {words().zone(hours.zone.replaceAll('_', ' '))}
      </Text>
      {isFixed ? <Text tone="slate">{words().onlyOwner}</Text> : null}
      {draft ? (
        <Section title={words().week}>
          <WeekEditor week={draft} isFixed={isFixed} onChange={change} />
          {isFixed ? null : (
            <Row>
              <Button look="bare" label={said.asHouseAgain} onPress={() => change(null)} />
            </Row>
          )}
        </Section>
      ) : (
        <Section title={said.asHouse}>
          <Text>{said.isAsHouse}</Text>
          {isFixed ? null : (
            <Row>
              <Button label={said.setOwn} onPress={() => change(hours.house?.week ?? EVERY_DAY)} />
            </Row>
          )}
        </Section>
      )}
      <SaveBar {...bar} />
    </HousePage>
  );
};

/** The week of a door that keeps its own. */
export const DoorHours = ({ id }: { id: string }) => {
  const { data: hours, isError, refetch } = useHours();
  const { data: house } = useHouse();
  if (isError && !hours) return <Failed retry={() => void refetch()} />;
  if (!hours || !house?.me) return <RowsComing />;
  const door = house.doors.find((one) => one.id === id);
  if (!door) {
    return (
      <Empty title={shellWords().notFound.title} more={shellWords().notFound.more}>
        <Button label={words().title} onPress={() => router.navigate('/house/hours')} />
      </Empty>
    );
  }
  return <WeekOfDoor id={id} name={door.name} hours={hours} isFixed={house.me.role !== 'owner'} />;
};
