import type { Door, House as HouseData } from '@porch/contract/team';
import { router } from 'expo-router';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { playBell } from '../data/bell';
import { type Choice, choose, useChoice } from '../data/choices';
import { useFindingRead, useHouse, useSignOut, useWarningSeen, useZone } from '../data/house';
import { outbox, useOutbox } from '../data/outbox';
import { DoorPlate } from '../parts/door-plate';
import { Face } from '../parts/face';
import { Problem, problemOf, Room, Row, Section } from '../parts/form';
import { Button } from '../parts/press';
import { Failed, RowsComing } from '../parts/states';
import { Tick } from '../parts/tick';
import { useNow } from '../parts/use-now';
import { Words } from '../parts/words';
import { touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { whyInWords, words } from '../wording';
import { momentInWords } from '../wording/times';
import { Checklist } from './checklist';
import { DeadJobs } from './dead-jobs';
import { PairSheet } from './pair-sheet';

const said = words.house;

/** A way into a room: what it is, and a line about it. */
const Way = (props: {
  title: string;
  more: string;
  icon: React.ReactNode;
  to: Parameters<typeof router.navigate>[0];
}) => {
  const theme = useTheme();
  return (
    <Pressable
      role="link"
      aria-label={`${props.title}, ${props.more}`}
      onPress={() => router.navigate(props.to)}
      style={[styles.way, { borderColor: theme.seam }]}
    >
      <View style={styles.icon}>{props.icon}</View>
      <View style={styles.grow}>
        <Words kind="name">{props.title}</Words>
        <Words kind="second" tone="slate">
          {props.more}
        </Words>
      </View>
      <ChevronRight size={22} color={theme.slate} aria-hidden />
    </Pressable>
  );
};

const doorMore = (door: Door): string =>
  [
    words.conversation.website,
    door.isClosed ? words.rooms.closed : door.sites.join(', ') || words.rooms.noSite,
    ...(door.health.why ? [words.rooms.failing(whyInWords(door.health.why))] : []),
  ].join(' · ');

const ChoiceTick = ({ choice, label }: { choice: Choice; label: string }) => {
  const isOn = useChoice(choice);
  return <Tick label={label} isOn={isOn} onChange={(next) => choose(choice, next)} />;
};

const Account = ({ name }: { name: string }) => {
  const signOut = useSignOut();
  const { queue } = useOutbox();
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
    if (queue.length > 0) setAsked({ everywhere });
    else void go(everywhere);
  };
  return (
    <Section title={said.account}>
      <Words>{said.signedInAs(name)}</Words>
      {asked ? (
        <View role="alert" style={styles.ask}>
          <Words tone="brick">{said.unsent(queue.length)}</Words>
          <Button
            tone="brick"
            label={said.signOutAnyway}
            onPress={() => void go(asked.everywhere)}
          />
        </View>
      ) : null}
      <Row>
        <Button label={said.pair} onPress={() => setPairing(true)} />
        <Button label={said.signOut} onPress={() => ask(false)} />
        <Button look="bare" label={said.signOutAll} onPress={() => ask(true)} />
      </Row>
      <Problem text={problemOf(signOut.error)} />
      {isPairing ? <PairSheet close={() => setPairing(false)} /> : null}
    </Section>
  );
};

const Ways = ({ house }: { house: HouseData }) => {
  const { business, me, doors, team } = house;
  if (!business || !me) return null;
  const here = team.filter(({ hasLeft }) => !hasLeft);
  return (
    <>
      <Section title={words.rooms.doors}>
        {doors.map((door) => (
          <Way
            key={door.id}
            title={door.name}
            more={doorMore(door)}
            icon={<DoorPlate />}
            to={`/house/door/${door.id}`}
          />
        ))}
        {me.role === 'owner' ? (
          <Row>
            <Button
              look="bare"
              label={words.rooms.addDoor}
              onPress={() => router.navigate('/house/new-door')}
            />
          </Row>
        ) : null}
      </Section>
      <View>
        <Way
          title={words.rooms.business}
          more={words.rooms.businessMore}
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
        <Way
          title={words.rooms.team}
          more={words.rooms.teamMore(here.length)}
          icon={<Face name={`${here.length}`} pictureId={null} size={36} />}
          to="/house/team"
        />
        <Way
          title={words.rooms.me}
          more={me.publicName || me.name}
          icon={<Face name={me.name} pictureId={me.pictureId} size={36} />}
          to="/house/me"
        />
      </View>
    </>
  );
};

const Findings = ({ house }: { house: HouseData }) => {
  const zone = useZone();
  const now = useNow();
  const read = useFindingRead();
  if (house.findings.length === 0) return null;
  return (
    <Section title={words.findings.title}>
      {house.findings.map(({ kind, at, detail }) => (
        <View key={kind} role="alert" style={styles.ask}>
          <Words tone="brick">{words.findings[kind](momentInWords(at, now, zone))}</Words>
          <Words kind="second" tone="slate">
            {detail}
          </Words>
          <Row>
            <Button label={words.findings.seen} onPress={() => read.mutate(kind)} />
          </Row>
        </View>
      ))}
      <Problem text={problemOf(read.error)} />
    </Section>
  );
};

const Warning = ({ house }: { house: HouseData }) => {
  const zone = useZone();
  const now = useNow();
  const seen = useWarningSeen();
  const { warning } = house;
  if (!warning) return null;
  const said = words.warning;
  return (
    <Section title={said.title}>
      <Words>{said.more(warning.failures, momentInWords(warning.lastAt, now, zone))}</Words>
      <Row>
        <Button label={said.seen} onPress={() => seen.mutate(undefined)} />
        <Button look="bare" label={said.change} onPress={() => router.navigate('/house/me')} />
      </Row>
      <Problem text={problemOf(seen.error)} />
    </Section>
  );
};

/** The house itself: what is still to do, its doors and rooms, this device, and the account. */
export const House = () => {
  const { data: house, isError, refetch } = useHouse();
  if (isError && !house) return <Failed retry={() => void refetch()} />;
  if (!house?.me) return <RowsComing />;
  return (
    <Room title={said.title}>
      <Findings house={house} />
      <DeadJobs count={house.deadJobs} />
      <Warning house={house} />
      <Checklist house={house} />
      <Ways house={house} />
      <Section title={said.device}>
        <ChoiceTick choice="sound" label={said.sound} />
        <Row>
          <Button look="bare" label={said.hearSound} onPress={playBell} />
        </Row>
        <ChoiceTick choice="shortcuts" label={said.shortcuts} />
      </Section>
      <Account name={house.me.name} />
    </Room>
  );
};

const styles = StyleSheet.create({
  way: {
    minHeight: touch + 12,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    paddingVertical: 8,
    borderBottomWidth: 1,
  },
  icon: { width: 40, alignItems: 'center' },
  grow: { flex: 1 },
  ask: { gap: 12 },
});
