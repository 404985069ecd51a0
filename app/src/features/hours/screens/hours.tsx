import type { Door } from '@porch/contract/doors';
import type { Hours as HoursData } from '@porch/contract/hours';
import type { OpeningHours } from '@porch/core/hours/opening';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { Pressable, StyleSheet, View } from 'react-native';
import { Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { wayTo } from '../../../kit/way';
import { HousePage } from '../../../shell/frame/house-page';
import { useHouse } from '../../../shell/session/house';
import { useHoursWay } from '../../lamp/parts/hours-way';
import { useHolidays, useHours, useSetHours } from '../data/hours';
import { usualWeeks } from '../data/weeks';
import { SaveBar, useKeeping } from '../parts/save-bar';
import { WeekEditor } from '../parts/week-editor';
import { words } from '../words';
import { HolidaysPart } from './holidays-part';
import { PromisesPart } from './promises-part';
import { SpellsPart } from './spells-part';
import { WrittenPart } from './written-part';

const DoorsPart = ({ doors, hours }: { doors: readonly Door[]; hours: HoursData }) => {
  const theme = useTheme();
  const said = words().doors;
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      {doors.map(({ id, name }) => {
        const more = hours.doors[id] ? said.own : said.asHouse;
        return (
          <Pressable
            key={id}
            {...wayTo(`/house/hours?door=${id}`)}
            aria-label={`${name}, ${more}`}
            style={[styles.door, { borderColor: theme.seam }]}
          >
            <View style={styles.grow}>
              <Text>{name}</Text>
              <Text kind="second" tone="slate">
                {more}
              </Text>
            </View>
            <ChevronRight size={22} color={theme.slate} aria-hidden />
          </Pressable>
        );
      })}
    </Section>
  );
};

/** When nothing was said yet: what that means, and a week to begin with. */
const NoHours = (props: { isFixed: boolean; begin: (hours: OpeningHours) => void }) => {
  const said = words().none;
  return (
    <Section title={said.title}>
      <Text>{said.more}</Text>
      {props.isFixed ? null : (
        <Row>
          <Button look="main" label={said.begin} onPress={() => props.begin(usualWeeks.workdays)} />
          <Button label={said.always} onPress={() => props.begin(usualWeeks.always)} />
        </Row>
      )}
    </Section>
  );
};

const HoursOfHouse = ({ hours }: { hours: HoursData }) => {
  const { data: house } = useHouse();
  const { draft, change, bar } = useKeeping('house', hours.house, useSetHours());
  const way = useHoursWay();
  const isFixed = house?.me?.role !== 'owner';
  const place = draft?.holidays;
  const { data: named } = useHolidays(isFixed ? '' : (place?.country ?? ''), place?.region ?? '');
  return (
    <HousePage title={words().title} isBehind>
      <View>
        <Text kind="name">{way.more}</Text>
        <Text kind="second" tone="slate">
          {words().zone(hours.zone.replaceAll('_', ' '))}
        </Text>
        {isFixed ? <Text tone="slate">{words().onlyOwner}</Text> : null}
      </View>
      {draft ? (
        <>
          <Section title={words().week}>
            {isFixed ? null : (
              <Text kind="second" tone="slate">
                {words().weekMore}
              </Text>
            )}
            <WeekEditor
              week={draft.week}
              isFixed={isFixed}
              onChange={(week) => change({ ...draft, week })}
            />
          </Section>
          <HolidaysPart
            rules={draft.holidays}
            today={hours.today}
            isFixed={isFixed}
            onChange={(holidays) => change({ ...draft, holidays })}
          />
          <SpellsPart
            spells={draft.spells}
            today={hours.today}
            isFixed={isFixed}
            onChange={(spells) => change({ ...draft, spells })}
          />
        </>
      ) : (
        <NoHours isFixed={isFixed} begin={change} />
      )}
      <WrittenPart
        hours={draft}
        name={house?.business?.name ?? ''}
        country={house?.business?.country ?? ''}
        holidays={named?.holidays ?? hours.holidays}
        today={hours.today}
        isFixed={isFixed}
        onRead={change}
      />
      <PromisesPart isFixed={isFixed} />
      <DoorsPart doors={(house?.doors ?? []).filter(({ isClosed }) => !isClosed)} hours={hours} />
      {draft && !isFixed ? (
        <Row>
          <Button look="bare" label={words().none.drop} onPress={() => change(null)} />
        </Row>
      ) : null}
      <SaveBar {...bar} />
    </HousePage>
  );
};

/** When the business is open. */
export const HoursScreen = () => {
  const { data: hours, isError, refetch } = useHours();
  if (isError && !hours) return <Failed retry={() => void refetch()} />;
  if (!hours) return <RowsComing />;
  return <HoursOfHouse hours={hours} />;
};

const styles = StyleSheet.create({
  door: {
    minHeight: touch + 8,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    borderBottomWidth: 1,
  },
  grow: { flex: 1 },
});
