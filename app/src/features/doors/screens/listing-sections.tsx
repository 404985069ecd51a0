import type { NetworkDoor } from '@porch/contract/doors';
import type { House } from '@porch/contract/house';
import { router } from 'expo-router';
import { View } from 'react-native';
import { Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { whyInWords } from '../../../shell/words/why';
import { doorWords } from '../words/network';

/** What a listing shows of the business, when it last agreed with the light, and in what it had differed. */
const Listing = ({ listing }: { listing: NonNullable<NetworkDoor['listing']> }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const said = doorWords().listing;
  const { agreed, at, differed, theirs } = listing;
  const availability = (one: typeof agreed): string => {
    if (!one.isOn) return said.off;
    return one.awayUntil === null ? said.on : said.away(momentInWords(one.awayUntil, now, zone));
  };
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      <Text role="status">{said.agreed(availability(agreed), momentInWords(at, now, zone))}</Text>
      <Text kind="second">{agreed.hours ? said.hours(agreed.hours) : said.noHours}</Text>
      {differed.length > 0 ? (
        <Text kind="second" tone="ember">
          {said.differed(
            differed.map((field) =>
              field === 'hours' ? said.hoursThere(theirs.hours) : availability(theirs),
            ),
          )}
        </Text>
      ) : null}
    </Section>
  );
};

const Lines = ({ label, lines }: { label: string; lines: readonly string[] }) =>
  lines.length === 0 ? null : (
    <View>
      <Text kind="second" tone="ember">
        {label}
      </Text>
      <View role="list" aria-label={label}>
        {[...new Set(lines)].map((line) => (
          <Text key={line} kind="second" role="listitem">
            {line}
          </Text>
        ))}
      </View>
    </View>
  );

/** Whether the questions of a listing are the same as the cards of a website door, and what was not. */
const Questions = ({
  questions,
  house,
}: {
  questions: NonNullable<NonNullable<NetworkDoor['listing']>['questions']>;
  house: House;
}) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const said = doorWords().questions;
  const { doorId, sameCount, followed, outvoted, notTaken, tooLong, problem } = questions;
  const door = house.doors.find(({ id }) => id === doorId);
  if (!door) return null;
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more(door.name)}
      </Text>
      {problem === null ? (
        <Text role="status">{said.same(sameCount)}</Text>
      ) : (
        <Text role="alert" tone="brick">
          {said.failed(whyInWords(problem))}
        </Text>
      )}
      {followed ? (
        <Text kind="second">
          {said.followed(followed.count, momentInWords(followed.at, now, zone))}
        </Text>
      ) : null}
      <Lines
        label={said.outvoted}
        lines={outvoted.map(({ question, answer }) => `${question}: ${answer}`)}
      />
      <Lines label={said.notTaken} lines={notTaken} />
      {notTaken.length > 0 ? (
        <Text kind="second" tone="slate">
          {said.notTakenWhy}
        </Text>
      ) : null}
      <Lines label={said.tooLong} lines={tooLong} />
      <Row>
        <Button
          label={said.dress}
          onPress={() => router.push(`/house/dress/${door.id}?part=asked`)}
        />
      </Row>
    </Section>
  );
};

/** Of a listing: what it shows, and its questions. */
export const ListingSections = ({ network, house }: { network: NetworkDoor; house: House }) => {
  const { listing } = network;
  if (!listing) return null;
  return (
    <>
      <Listing listing={listing} />
      {listing.questions ? <Questions questions={listing.questions} house={house} /> : null}
    </>
  );
};
