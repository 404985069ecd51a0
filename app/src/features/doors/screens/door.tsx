import type { Door } from '@porch/contract/doors';
import type { House } from '@porch/contract/house';
import { router } from 'expo-router';
import { Image, StyleSheet, View } from 'react-native';
import { Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Empty, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { HousePage } from '../../../shell/frame/house-page';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useHouse, useZone } from '../../../shell/session/house';
import { shellWords } from '../../../shell/words';
import { Closing, Concerns, NameForm } from '../parts/door-parts';
import { sightingInWords } from '../parts/in-words';
import { PutUp } from '../parts/put-up';
import { SignedIn } from '../parts/signed-in';
import { words } from '../words';
import { NetworkDoorScreen } from './network-door';
import { SitesForm } from './sites-form';

const CODE_PX = 180;

const Code = ({ door }: { door: Door }) => {
  const at = (kind: 'png' | 'svg'): string => `/api/doors/${door.id}/qr.${kind}`;
  const out = (kind: 'png' | 'svg') => ({ href: at(kind), hrefAttrs: { download: true } });
  return (
    <Section title={words().code}>
      <Text kind="second" tone="slate">
        {words().codeMore}
      </Text>
      <View role="img" aria-label={words().codeAlt}>
        <Image source={{ uri: at('svg') }} style={styles.code} alt="" />
      </View>
      <Row>
        <Button role="link" label={words().png} {...out('png')} />
        <Button role="link" label={words().svg} {...out('svg')} />
      </Row>
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
const WebsiteDoor = ({ door, house }: { door: Door; house: House }) => {
  const isOwner = house.me?.role === 'owner';
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
      {isOwner ? <SignedIn doorId={door.id} /> : null}
      {isOwner ? <Concerns door={door} house={house} more={words().concernsMore} /> : null}
      <Section title={words().name}>
        <NameForm door={door} isOwner={isOwner} />
      </Section>
      {isOwner ? <Closing door={door} more={words().closeMore} /> : null}
    </HousePage>
  );
};

/** Everything about one door. */
export const DoorScreen = ({ id }: { id: string }) => {
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
  if (!door.isCarried) return <WebsiteDoor door={door} house={house} />;
  return <NetworkDoorScreen door={door} house={house} />;
};

const styles = StyleSheet.create({
  // Codes are read on white, by night too.
  code: { width: CODE_PX, height: CODE_PX, backgroundColor: '#ffffff' },
});
