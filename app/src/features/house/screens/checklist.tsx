import type { Sighting } from '@porch/contract/doors';
import type { House, Checklist as Ticks } from '@porch/contract/house';
import { router } from 'expo-router';
import Check from 'lucide-react-native/icons/check';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { spanInWords } from '../../../kit/times';
import { useAsTimeGoes } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useDoorbellTicks } from '../../doorbell/parts/ways';
import { useChangeDoor } from '../../doors/data/doors';
import { sightingInWords } from '../../doors/parts/in-words';
import { PairSheet } from '../../team/parts/pair-sheet';
import { useTick, useWatchedHouse } from '../data/checklist';
import { stepsLeft } from '../data/steps-left';
import { words } from '../words';

const said = () => words().checklist;

const Item = (props: {
  label: string;
  isDone: boolean;
  more?: string;
  children?: React.ReactNode;
}) => {
  const theme = useTheme();
  const { isDone } = props;
  return (
    <View role="listitem" style={styles.item}>
      <View
        style={[
          styles.box,
          { borderColor: isDone ? theme.moss : theme.edge },
          isDone ? { backgroundColor: theme.moss } : null,
        ]}
      >
        {isDone ? <Check size={18} color={theme.paper} aria-hidden /> : null}
      </View>
      <View style={styles.grow}>
        <Text>{props.label}</Text>
        <Text kind="second" tone={isDone ? 'moss' : 'slate'}>
          {`${isDone ? said().done : said().open}${props.more ? ` · ${props.more}` : ''}`}
        </Text>
        {isDone ? null : <View style={styles.doings}>{props.children}</View>}
      </View>
    </View>
  );
};

/** Where the snippet lives on a website that is not on the door's list: one tap allows it. */
const Unlisted = ({ sighting, house }: { sighting: Sighting; house: House }) => {
  const { mutate, error } = useChangeDoor(sighting.doorId);
  const sites = house.doors.find(({ id }) => id === sighting.doorId)?.sites ?? [];
  return (
    <View style={styles.unlisted}>
      <Text kind="second" tone="ember">
        {said().unlisted(sighting.site)}
      </Text>
      <Row>
        <Button
          label={said().allow(sighting.site)}
          onPress={() => mutate({ sites: [...sites, sighting.site] })}
        />
      </Row>
      <Problem text={problemOf(error)} />
    </View>
  );
};

const Snippet = ({ house, ticks }: { house: House; ticks: Ticks }) => {
  const zone = useZone();
  const { dataUpdatedAt, refetch } = useWatchedHouse();
  const seen = ticks.sightings.find(({ isListed }) => isListed);
  const unlisted = ticks.sightings.filter(({ isListed }) => !isListed).slice(0, 3);
  const door = house.doors.find(({ isCarried }) => !isCarried);
  const more = useAsTimeGoes((now) =>
    seen
      ? sightingInWords(seen, now, zone)
      : said().snippetNot(spanInWords(Date.now() - dataUpdatedAt)),
  );
  return (
    <>
      <Item label={said().snippet} isDone={seen !== undefined} more={more}>
        <Button look="bare" label={said().look} onPress={() => void refetch()} />
        {door ? (
          <Button
            look="bare"
            label={said().snippetHow}
            onPress={() => router.navigate(`/house/door/${door.id}`)}
          />
        ) : null}
      </Item>
      {unlisted.map((sighting) => (
        <Unlisted key={sighting.origin} sighting={sighting} house={house} />
      ))}
    </>
  );
};

/** What makes a house ready, ticked by the house itself; gone when all is done. */
export const Checklist = ({ house }: { house: House }) => {
  const { checklist: ticks, business } = house;
  const tick = useTick();
  const bells = useDoorbellTicks();
  const [isPairing, setPairing] = useState(false);
  if (!ticks || stepsLeft(house).length === 0) return null;
  const door = house.doors.find(({ isCarried }) => !isCarried);
  const dress = (part?: string) => () =>
    door && router.navigate(`/house/dress/${door.id}${part ? `?part=${part}` : ''}`);
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      {business && business.walkStep !== 'done' ? (
        <Button
          look="main"
          label={words().checklist.resume}
          onPress={() => router.navigate('/walk')}
        />
      ) : null}
      <View role="list" aria-label={said().title} style={styles.list}>
        <Snippet house={house} ticks={ticks} />
        <Item label={said().phone} isDone={ticks.phone}>
          <Button look="bare" label={said().phoneDo} onPress={() => setPairing(true)} />
        </Item>
        <Item label={bells.homeScreen.label} isDone={ticks.homeScreen}>
          <Button
            look="bare"
            label={bells.homeScreen.action}
            onPress={() => router.navigate('/house/install')}
          />
        </Item>
        <Item label={bells.rings.label} isDone={ticks.rings}>
          <Button
            look="bare"
            label={bells.rings.action}
            onPress={() => router.navigate('/house/doorbell')}
          />
        </Item>
        <Item label={said().hours} isDone={ticks.hours}>
          <Button
            look="bare"
            label={said().hoursDo}
            onPress={() => router.navigate('/house/hours')}
          />
        </Item>
        <Item label={said().mail} isDone={ticks.mail}>
          <Button
            look="bare"
            label={said().mailDo}
            onPress={() => router.navigate('/house/mail')}
          />
        </Item>
        <Item label={said().answered} isDone={ticks.answered}>
          <Button
            look="bare"
            label={said().answeredDo}
            onPress={() => router.navigate('/walk?step=test')}
          />
        </Item>
        <Item label={said().dressed} isDone={ticks.dressed}>
          <Button look="bare" label={said().dressedDo} onPress={dress()} />
        </Item>
        <Item label={said().darkTexts} isDone={ticks.darkTexts}>
          <Button look="bare" label={said().darkTextsDo} onPress={dress('texts')} />
        </Item>
        <Item label={said().team} isDone={ticks.team}>
          <Button
            look="bare"
            label={said().teamDo}
            onPress={() => router.navigate('/house/team')}
          />
          <Button look="bare" label={said().alone} onPress={() => tick.mutate('team')} />
        </Item>
      </View>
      <Problem text={problemOf(tick.error)} />
      {isPairing ? <PairSheet close={() => setPairing(false)} /> : null}
    </Section>
  );
};

const styles = StyleSheet.create({
  list: { gap: 12 },
  item: { flexDirection: 'row', gap: 12 },
  box: {
    width: 26,
    height: 26,
    marginTop: 2,
    borderWidth: 2,
    borderRadius: corner,
    alignItems: 'center',
    justifyContent: 'center',
  },
  unlisted: { gap: 6, paddingLeft: 38 },
  doings: { flexDirection: 'row', flexWrap: 'wrap', marginLeft: -8 },
  grow: { flex: 1 },
});
