import type { Door, NetworkDoor } from '@porch/contract/doors';
import type { House } from '@porch/contract/house';
import { router } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Copy, Done, Problem, Row, Section } from '../../../kit/fields/form';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { momentInWords, spanInWords } from '../../../kit/times';
import { HousePage } from '../../../shell/frame/house-page';
import { outbox } from '../../../shell/live/outbox';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { whyInWords } from '../../../shell/words/why';
import { useChangeDoor } from '../data/doors';
import {
  useCheckNetworkDoor,
  useNetworkDoor,
  useRemoveDoor,
  useRenewKey,
  useSetNetworkDoor,
} from '../data/networks';
import { networkWords } from '../kinds';
import { DeveloperPage } from '../parts/developer-page';
import { Closing, Concerns, NameForm } from '../parts/door-parts';
import { healthInWords } from '../parts/in-words';
import { NetworkFields } from '../parts/network-fields';
import { words } from '../words';
import { doorWords } from '../words/network';
import { ListingSections } from './listing-sections';

type Network = { network: NetworkDoor };

const Step = ({ title }: { title: string }) => (
  <Text kind="label" role="heading" aria-level={3}>
    {title}
  </Text>
);

/** Where the network is, as the owner says. */
const Where = ({ network }: Network) => {
  const said = networkWords(network.kind);
  const known = Object.fromEntries(network.fields.map(({ id, value }) => [id, value]));
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>(known);
  const noSecrets = Object.fromEntries(
    network.fields.filter(({ isSecret }) => isSecret).map(({ id }) => [id, '']),
  );
  const { mutate, error, isPending, isSuccess, reset } = useSetNetworkDoor(network.id);
  if (!said) return <Text tone="ember">{doorWords().unknownKind}</Text>;
  return (
    <>
      <Step title={doorWords().step.find} />
      <Text kind="second" tone="slate">
        {said.find}
      </Text>
      <NetworkFields
        said={said}
        fields={network.fields}
        typed={typed}
        error={error}
        change={(id, text) => {
          setTyped({ ...typed, [id]: text });
          reset();
        }}
      />
      <Problem
        text={problemElsewhere(
          error,
          network.fields.map(({ id }) => id),
        )}
      />
      <Row>
        <Button
          label={doorWords().save}
          disabled={isPending}
          onPress={() => mutate(typed, { onSuccess: () => setTyped({ ...typed, ...noSecrets }) })}
        />
        {isSuccess ? <Done text={doorWords().saved} /> : null}
      </Row>
    </>
  );
};

/** What the house gives, to be put in at the network. */
const PutIn = ({ network }: Network) => {
  const said = networkWords(network.kind);
  const renew = useRenewKey(network.id);
  const hasAny = Object.keys(network.shows).length > 0;
  if (!said) return null;
  return (
    <>
      <Step title={hasAny ? doorWords().step.putIn : doorWords().step.know} />
      <Text kind="second" tone="slate">
        {said.putIn}
      </Text>
      {Object.entries(network.shows).map(([id, text]) => (
        <View key={id} style={styles.given}>
          <Text kind="label">{said.shows[id]?.label ?? id}</Text>
          <Copy text={text} label={said.shows[id]?.copy ?? id} isCode />
        </View>
      ))}
      {network.canRenew ? (
        <View style={styles.given}>
          <Row>
            <Button
              look="bare"
              label={doorWords().renew}
              disabled={renew.isPending}
              onPress={() => renew.mutate(undefined)}
            />
          </Row>
          <Text kind="second" tone="slate">
            {doorWords().renewMore}
          </Text>
          <Problem text={problemOf(renew.error)} />
        </View>
      ) : null}
    </>
  );
};

/** Whether it works: asked, written to, and answered. */
const TryIt = ({ network, business }: Network & { business: string }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const check = useCheckNetworkDoor(network.id);
  const { heardFrom, lastSent } = network;
  const said = doorWords();
  const answer = (): void => {
    if (!heardFrom) return;
    const { conversationId, threadId } = heardFrom;
    const text = said.testOutText(business);
    outbox.add(conversationId, { do: 'say', text, fileIds: [], files: [], threadId });
  };
  return (
    <>
      <Step title={said.step.test} />
      <Row>
        <Button
          label={check.isPending ? said.checking : said.check}
          disabled={check.isPending}
          onPress={() => check.mutate(undefined)}
        />
        {check.data && check.data.problem === null ? <Done text={said.checked} /> : null}
      </Row>
      <Problem text={check.data?.problem ? whyInWords(check.data.problem) : ''} />
      <Problem text={problemOf(check.error)} />
      <Text>{said.testIn}</Text>
      {heardFrom ? (
        <>
          <Done
            text={said.testInDone(
              heardFrom.name || said.somebody,
              momentInWords(heardFrom.at, now, zone),
            )}
          />
          <Text>{said.testOut}</Text>
          <Row>
            <Button label={said.testOutSend} onPress={answer} />
            <Button
              look="bare"
              label={said.testInOpen}
              onPress={() => router.navigate(`/line/${heardFrom.conversationId}`)}
            />
          </Row>
        </>
      ) : null}
      {lastSent ? (
        <Text
          role="status"
          tone={
            lastSent.step === 'failed' ? 'brick' : lastSent.step === 'waiting' ? 'slate' : 'moss'
          }
        >
          {[said.sent[lastSent.step], lastSent.why ? whyInWords(lastSent.why) : '']
            .filter(Boolean)
            .join(': ')}
        </Text>
      ) : null}
    </>
  );
};

/** What the network can do: what is not offered in a conversation, and why. */
const Can = ({ network: { can } }: Network) => {
  const said = doorWords();
  const lines = [
    can.segmentsMost === undefined
      ? said.canText(can.textLongest)
      : said.canSegments(can.segmentsMost),
    said.canFiles(can.filesMost),
    can.windowMs === null ? said.canAlways : said.canWindow(spanInWords(can.windowMs)),
    said.canReceipts[can.receipts],
  ];
  return (
    <Section title={said.can}>
      <View role="list" style={styles.given}>
        {lines.map((line) => (
          <Text key={line} kind="second" role="listitem">
            {line}
          </Text>
        ))}
      </View>
    </Section>
  );
};

/** Whether the panels on the websites offer it to whoever would rather write by it. */
const Offered = ({ door }: { door: Door }) => {
  const { mutate, error } = useChangeDoor(door.id);
  if (door.isOffered === null) return null;
  return (
    <Section title={doorWords().offered}>
      <Text kind="second" tone="slate">
        {doorWords().offeredMore}
      </Text>
      <Tick
        label={doorWords().offer(door.name)}
        isOn={door.isOffered}
        onChange={(isOffered) => mutate({ isOffered })}
      />
      <Problem text={problemOf(error)} />
    </Section>
  );
};

const Removing = ({ door }: { door: Door }) => {
  const [isAsked, setAsked] = useState(false);
  const { mutate, error, isPending } = useRemoveDoor(door.id);
  const said = doorWords();
  return (
    <Section title={said.remove}>
      <Text kind="second" tone="slate">
        {said.removeMore}
      </Text>
      {isAsked ? (
        <View role="alert" style={styles.given}>
          <Text tone="brick">{said.removeAsk(door.name)}</Text>
          <Row>
            <Button
              tone="brick"
              label={said.removeDo}
              disabled={isPending}
              onPress={() => mutate(undefined, { onSuccess: () => router.replace('/house') })}
            />
            <Button look="bare" label={said.removeNot} onPress={() => setAsked(false)} />
          </Row>
        </View>
      ) : (
        <Row>
          <Button label={said.remove} onPress={() => setAsked(true)} />
        </Row>
      )}
      <Problem text={problemOf(error)} />
    </Section>
  );
};

const Health = ({ door }: { door: Door }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const isFailing = door.health.failingSince !== null;
  const line = healthInWords(door.health, now, zone);
  return (
    <Section title={doorWords().health}>
      <Text tone={isFailing ? 'brick' : 'ink'} role={isFailing ? 'alert' : 'status'}>
        {isFailing ? line : doorWords().well(line)}
      </Text>
    </Section>
  );
};

const Owners = ({ door, house }: { door: Door; house: House }) => {
  const { data: network, isError, refetch } = useNetworkDoor(door.id);
  if (isError && !network) return <Failed retry={() => void refetch()} />;
  if (!network) return <RowsComing />;
  return (
    <>
      <Section title={doorWords().connect}>
        <Where network={network} />
        <PutIn network={network} />
        <TryIt network={network} business={house.business?.name ?? ''} />
      </Section>
      <DeveloperPage kind={network.kind} />
      <ListingSections network={network} house={house} />
      <Can network={network} />
    </>
  );
};

/** Everything about one door to a network. */
export const NetworkDoorScreen = ({ door, house }: { door: Door; house: House }) => {
  const isOwner = house.me?.role === 'owner';
  return (
    <HousePage title={door.name} isBehind>
      <Health door={door} />
      {isOwner ? <Owners door={door} house={house} /> : null}
      {isOwner ? <Offered door={door} /> : null}
      {isOwner ? <Concerns door={door} house={house} more={doorWords().concernsMore} /> : null}
      <Section title={words().name}>
        <NameForm door={door} isOwner={isOwner} />
        {isOwner ? (
          <Row>
            <Button
              look="bare"
              label={doorWords().hours}
              onPress={() => router.navigate(`/house/hours?door=${door.id}`)}
            />
          </Row>
        ) : null}
      </Section>
      {isOwner ? <Closing door={door} more={doorWords().closeMore} /> : null}
      {isOwner ? <Removing door={door} /> : null}
    </HousePage>
  );
};

const styles = StyleSheet.create({ given: { gap: 8 } });
