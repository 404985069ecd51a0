import type { Door } from '@porch/contract/doors';
import type { House } from '@porch/contract/house';
import { router } from 'expo-router';
import { useState } from 'react';
import { Image, Linking, StyleSheet } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Empty, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { HousePage } from '../../../shell/frame/house-page';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useHouse, useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { shellWords } from '../../../shell/words';
import { useChangeDoor } from '../data/doors';
import { sightingInWords } from '../parts/in-words';
import { PutUp } from '../parts/put-up';
import { words } from '../words';
import { SitesForm } from './sites-form';

const CODE_PX = 180;

const NameForm = ({ door, isOwner }: { door: Door; isOwner: boolean }) => {
  const [name, setName] = useState(door.name);
  const { mutate, error, isPending, isSuccess, reset } = useChangeDoor(door.id);
  return (
    <>
      <Field
        label={words().name}
        more={words().nameMore}
        value={name}
        maxLength={80}
        editable={isOwner}
        problem={problemOf(error)}
        onChangeText={(text) => {
          setName(text);
          reset();
        }}
      />
      {isOwner ? (
        <Row>
          <Button label={kitWords().save} disabled={isPending} onPress={() => mutate({ name })} />
          {isSuccess ? <Done text={kitWords().saved} /> : null}
        </Row>
      ) : null}
    </>
  );
};

const Code = ({ door }: { door: Door }) => {
  const at = (kind: 'png' | 'svg'): string => `/api/doors/${door.id}/qr.${kind}`;
  return (
    <Section title={words().code}>
      <Text kind="second" tone="slate">
        {words().codeMore}
      </Text>
      <Image source={{ uri: at('svg') }} style={styles.code} aria-label={words().codeAlt} />
      <Row>
        <Button role="link" label={words().png} onPress={() => void Linking.openURL(at('png'))} />
        <Button role="link" label={words().svg} onPress={() => void Linking.openURL(at('svg'))} />
      </Row>
    </Section>
  );
};

/** Who is shown at a door and hears its bell; everybody, unless somebody is left out. */
const Concerns = ({ door, house }: { door: Door; house: House }) => {
  const { mutate, error } = useChangeDoor(door.id);
  const team = house.team.filter(({ hasLeft }) => !hasLeft);
  const all = team.map(({ id }) => id);
  const chosen = door.memberIds ?? all;
  const set = (memberId: string, isOn: boolean): void => {
    const next = isOn ? [...chosen, memberId] : chosen.filter((id) => id !== memberId);
    // A door that concerned nobody would ring nowhere.
    const isEverybody = next.length === all.length || next.length === 0;
    mutate({ memberIds: isEverybody ? null : next });
  };
  return (
    <Section title={words().concerns}>
      <Text kind="second" tone="slate">
        {words().concernsMore}
      </Text>
      {team.map(({ id, name }) => (
        <Tick key={id} label={name} isOn={chosen.includes(id)} onChange={(isOn) => set(id, isOn)} />
      ))}
      <Problem text={problemOf(error)} />
    </Section>
  );
};

const Closing = ({ door }: { door: Door }) => {
  const { mutate, error } = useChangeDoor(door.id);
  return (
    <Section title={words().closing}>
      <Text kind="second" tone={door.isClosed ? 'ember' : 'slate'}>
        {door.isClosed ? words().isClosed : words().closeMore}
      </Text>
      <Row>
        <Button
          label={door.isClosed ? words().open : words().close}
          onPress={() => mutate({ isClosed: !door.isClosed })}
        />
      </Row>
      <Problem text={problemOf(error)} />
    </Section>
  );
};

const Seen = ({ door, house }: { door: Door; house: House }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const sightings = (house.checklist?.sightings ?? []).filter(({ doorId }) => doorId === door.id);
  if (sightings.length === 0) return null;
  return (
    <Section title={words().seen}>
      {sightings.slice(0, 5).map((seen) => (
        <Text key={seen.origin} kind="second">
          {sightingInWords(seen, now, zone)}
        </Text>
      ))}
    </Section>
  );
};

/** Everything about one website door, but for its dress. */
export const WebsiteDoor = ({ id }: { id: string }) => {
  const { data: house } = useHouse();
  if (!house?.me) return <RowsComing />;
  const door = house.doors.find((one) => one.id === id);
  if (!door) {
    return (
      <Empty title={shellWords().notFound.title} more={shellWords().notFound.more}>
        <Button label={shellWords().places.house} onPress={() => router.navigate('/house')} />
      </Empty>
    );
  }
  const isOwner = house.me.role === 'owner';
  return (
    <HousePage title={door.name} isBehind>
      {isOwner ? (
        <Section title={words().dressing}>
          <Text kind="second" tone="slate">
            {words().dressMore}
          </Text>
          <Button
            look="main"
            label={words().dress}
            onPress={() => router.navigate(`/house/dress/${door.id}`)}
          />
        </Section>
      ) : null}
      <Section title={words().title}>
        <PutUp door={door} />
        <SitesForm key={door.sites.join()} door={door} isOwner={isOwner} />
      </Section>
      <Seen door={door} house={house} />
      <Code door={door} />
      {isOwner ? <Concerns door={door} house={house} /> : null}
      <Section title={words().name}>
        <NameForm door={door} isOwner={isOwner} />
      </Section>
      {isOwner ? <Closing door={door} /> : null}
    </HousePage>
  );
};

const styles = StyleSheet.create({
  // Codes are read on white, by night too.
  code: { width: CODE_PX, height: CODE_PX, backgroundColor: '#ffffff' },
});
