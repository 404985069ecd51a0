import type { House as HouseData } from '@porch/contract/house';
import { router } from 'expo-router';
import Bell from 'lucide-react-native/icons/bell';
import CalendarClock from 'lucide-react-native/icons/calendar-clock';
import LibraryBig from 'lucide-react-native/icons/library-big';
import Mail from 'lucide-react-native/icons/mail';
import NotebookText from 'lucide-react-native/icons/notebook-text';
import Package from 'lucide-react-native/icons/package';
import Smartphone from 'lucide-react-native/icons/smartphone';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DoorPlate } from '../../../kit/drawn/door-plate';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import { WayRow } from '../../../kit/way-row';
import { HousePage } from '../../../shell/frame/house-page';
import { outbox, useOutbox } from '../../../shell/live/outbox';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { Face } from '../../../shell/pictures/face';
import { type Choice, choose, useChoice } from '../../../shell/session/choices';
import { useHouse, useSignOut, useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useDoorbellWays } from '../../doorbell/parts/ways';
import { doorInWords } from '../../doors/parts/in-words';
import { useHoursWay } from '../../lamp/parts/hours-way';
import { mailWay } from '../../mail/parts/way';
import { PairSheet } from '../../team/parts/pair-sheet';
import { useFindingRead, useWarningSeen } from '../data/notices';
import { words } from '../words';
import { Checklist } from './checklist';
import { DeadJobs } from './dead-jobs';

const ChoiceTick = ({ choice, label }: { choice: Choice; label: string }) => {
  const isOn = useChoice(choice);
  return <Tick label={label} isOn={isOn} onChange={(next) => choose(choice, next)} />;
};

const Account = ({ name }: { name: string }) => {
  const signOut = useSignOut();
  const unsent = useOutbox(({ queue }) => queue.length);
  const [asked, setAsked] = useState<{ everywhere: boolean } | null>(null);
  const [isPairing, setPairing] = useState(false);
  const go = async (everywhere: boolean): Promise<void> => {
    try {
      await signOut.mutateAsync(everywhere);
    } catch {
      // Said below; whoever is still signed in keeps what waits.
      return;
    }
    outbox.clear();
    router.replace('/sign-in');
  };
  const ask = (everywhere: boolean): void => {
    if (unsent > 0) setAsked({ everywhere });
    else void go(everywhere);
  };
  return (
    <Section title={words().account}>
      <Text>{words().signedInAs(name)}</Text>
      {asked ? (
        <View role="alert" style={styles.ask}>
          <Text tone="brick">{words().unsent(unsent)}</Text>
          <Button
            tone="brick"
            label={words().signOutAnyway}
            onPress={() => void go(asked.everywhere)}
          />
        </View>
      ) : null}
      <Row>
        <Button label={words().pair} onPress={() => setPairing(true)} />
        <Button label={words().signOut} onPress={() => ask(false)} />
        <Button look="bare" label={words().signOutAll} onPress={() => ask(true)} />
      </Row>
      <Problem text={problemOf(signOut.error)} />
      {isPairing ? <PairSheet close={() => setPairing(false)} /> : null}
    </Section>
  );
};

const Ways = ({ house }: { house: HouseData }) => {
  const theme = useTheme();
  const bells = useDoorbellWays();
  const hours = useHoursWay();
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const { business, me, doors, team } = house;
  if (!business || !me) return null;
  const here = team.filter(({ hasLeft }) => !hasLeft);
  return (
    <>
      <Section title={words().places.doors}>
        {doors.map((door) => (
          <WayRow
            key={door.id}
            title={door.name}
            more={doorInWords(door, now, zone)}
            icon={<DoorPlate plate={door.plate} />}
            to={`/house/door/${door.id}`}
          />
        ))}
        {me.role === 'owner' ? (
          <Row>
            <Button
              look="bare"
              label={words().places.addDoor}
              onPress={() => router.navigate('/house/new-door')}
            />
          </Row>
        ) : null}
      </Section>
      <View>
        <WayRow
          title={words().places.business}
          more={words().places.businessMore}
          icon={
            <Face
              name={business.name}
              pictureId={business.pictureId}
              shape={business.pictureShape}
              size={36}
            />
          }
          to="/house/business"
        />
        <WayRow
          {...hours}
          icon={<CalendarClock size={26} color={theme.ink} aria-hidden />}
          to="/house/hours"
        />
        <WayRow
          title={words().places.team}
          more={words().places.teamMore(here.length)}
          icon={<Face name={`${here.length}`} pictureId={null} size={36} />}
          to="/house/team"
        />
        <WayRow
          title={words().places.me}
          more={me.publicName || me.name}
          icon={<Face name={me.name} pictureId={me.pictureId} size={36} />}
          to="/house/me"
        />
        <WayRow
          {...bells.doorbell}
          icon={<Bell size={26} color={theme.ink} aria-hidden />}
          to="/house/doorbell"
        />
        <WayRow
          title={words().places.replies}
          more={words().places.repliesMore}
          icon={<NotebookText size={26} color={theme.ink} aria-hidden />}
          to="/house/replies"
        />
        <WayRow
          title={words().places.shelf}
          more={words().places.shelfMore}
          icon={<LibraryBig size={26} color={theme.ink} aria-hidden />}
          to="/house/shelf"
        />
        {me.role === 'owner' ? (
          <WayRow
            title={words().places.orders}
            more={words().places.ordersMore}
            icon={<Package size={26} color={theme.ink} aria-hidden />}
            to="/house/orders"
          />
        ) : null}
        {me.role === 'owner' ? (
          <WayRow
            {...mailWay()}
            icon={<Mail size={26} color={theme.ink} aria-hidden />}
            to="/house/mail"
          />
        ) : null}
        <WayRow
          {...bells.install}
          icon={<Smartphone size={26} color={theme.ink} aria-hidden />}
          to="/house/install"
        />
      </View>
    </>
  );
};

const Findings = ({ house }: { house: HouseData }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const read = useFindingRead();
  if (house.findings.length === 0) return null;
  return (
    <Section title={words().findings.title}>
      {house.findings.map(({ kind, at, detail }) => (
        <View key={kind} role="alert" style={styles.ask}>
          <Text tone="brick">{words().findings[kind](momentInWords(at, now, zone))}</Text>
          <Text kind="second" tone="slate">
            {detail}
          </Text>
          <Row>
            <Button label={words().findings.seen} onPress={() => read.mutate(kind)} />
          </Row>
        </View>
      ))}
      <Problem text={problemOf(read.error)} />
    </Section>
  );
};

const Warning = ({ house }: { house: HouseData }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const seen = useWarningSeen();
  const { warning } = house;
  if (!warning) return null;
  const said = words().warning;
  return (
    <Section title={said.title}>
      <Text>{said.more(warning.failures, momentInWords(warning.lastAt, now, zone))}</Text>
      <Row>
        <Button label={said.seen} onPress={() => seen.mutate(undefined)} />
        <Button look="bare" label={said.change} onPress={() => router.navigate('/house/me')} />
      </Row>
      <Problem text={problemOf(seen.error)} />
    </Section>
  );
};

/** The house itself: what is still to do, its doors, this device, and the account. */
export const House = () => {
  const { data: house, isError, refetch } = useHouse();
  if (isError && !house) return <Failed retry={() => void refetch()} />;
  if (!house?.me) return <RowsComing />;
  return (
    <HousePage title={words().title}>
      <Findings house={house} />
      <DeadJobs count={house.deadJobs} />
      <Warning house={house} />
      <Checklist house={house} />
      <Ways house={house} />
      <Section title={words().device}>
        <ChoiceTick choice="sound" label={words().sound} />
        <ChoiceTick choice="shortcuts" label={words().shortcuts} />
      </Section>
      <Account name={house.me.name} />
    </HousePage>
  );
};

const styles = StyleSheet.create({
  ask: { gap: 12 },
});
