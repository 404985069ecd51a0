import type { TeamMember } from '@porch/contract/people';
import type { RingOn } from '@porch/core/ringing';
import { router } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useHouse } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useChangeRingOn } from '../data/doorbell';
import { words } from '../words';

const said = () => words().ringOn;

const SECOND_MS = 1_000;
const MINUTE_MS = 60 * SECOND_MS;
const NEVER = 'never';

const SPANS_MS = [
  30 * SECOND_MS,
  MINUTE_MS,
  2 * MINUTE_MS,
  3 * MINUTE_MS,
  5 * MINUTE_MS,
  10 * MINUTE_MS,
  15 * MINUTE_MS,
  30 * MINUTE_MS,
  60 * MINUTE_MS,
];

const spanInWords = (ms: number): string =>
  ms < MINUTE_MS || ms % MINUTE_MS !== 0
    ? said().seconds(Math.round(ms / SECOND_MS))
    : said().minutes(ms / MINUTE_MS);

const After = (props: {
  label: string;
  ms: number | null;
  isDisabled: boolean;
  set: (ms: number | null) => void;
}) => {
  // What was set otherwise stays in sight beside the usual ones.
  const spans = [...new Set([...SPANS_MS, ...(props.ms === null ? [] : [props.ms])])].sort(
    (a, b) => a - b,
  );
  const options = spans.map((ms): [string, string] => [`${ms}`, spanInWords(ms)]);
  return (
    <Select
      label={props.label}
      isDisabled={props.isDisabled}
      options={[...options, [NEVER, said().never]]}
      value={props.ms === null ? NEVER : `${props.ms}`}
      onChange={(value) => props.set(value === NEVER ? null : Number(value))}
    />
  );
};

/** Some of the team; all of those that are meant without saying so, unless somebody is left out. */
const Some = (props: {
  label: string;
  team: readonly TeamMember[];
  /** Who is meant where nothing is said. */
  meant: readonly string[];
  ids: readonly string[] | null;
  isDisabled: boolean;
  set: (ids: string[] | null) => void;
}) => {
  const chosen = props.ids ?? props.meant;
  const set = (id: string, isOn: boolean): void => {
    const next = isOn ? [...chosen, id] : chosen.filter((one) => one !== id);
    const isAsMeant =
      next.length === props.meant.length && next.every((one) => props.meant.includes(one));
    props.set(isAsMeant ? null : next);
  };
  const named = props.team.filter(({ id }) => chosen.includes(id)).map(({ name }) => name);
  if (props.isDisabled) {
    return (
      <Text kind="second" tone="slate">
        {`${props.label}: ${named.join(', ')}`}
      </Text>
    );
  }
  return (
    <View role="group" aria-label={props.label} style={styles.group}>
      <Text kind="label">{props.label}</Text>
      {props.team.map(({ id, name }) => (
        <Tick key={id} label={name} isOn={chosen.includes(id)} onChange={(isOn) => set(id, isOn)} />
      ))}
    </View>
  );
};

/** What happens while nobody looks, the same for the whole team. */
export const RingingOn = ({ rules, canMail }: { rules: RingOn; canMail: boolean }) => {
  const house = useHouse().data;
  const { mutate, error } = useChangeRingOn();
  const isOwner = house?.me?.role === 'owner';
  const team = (house?.team ?? []).filter(({ hasLeft }) => !hasLeft);
  const owners = team.filter(({ role }) => role === 'owner');
  const change = (part: Partial<RingOn>): void => mutate({ ...rules, ...part });
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      {isOwner ? null : <Text kind="second">{said().onlyOwner}</Text>}
      <After
        label={said().again}
        ms={rules.againAfterMs}
        isDisabled={!isOwner}
        set={(againAfterMs) => change({ againAfterMs })}
      />
      <After
        label={said().others}
        ms={rules.othersAfterMs}
        isDisabled={!isOwner}
        set={(othersAfterMs) => change({ othersAfterMs })}
      />
      {rules.othersAfterMs === null ? null : (
        <Some
          label={said().whoElse}
          team={team}
          meant={team.map(({ id }) => id)}
          ids={rules.otherIds}
          isDisabled={!isOwner}
          set={(otherIds) => change({ otherIds })}
        />
      )}
      <After
        label={said().mail}
        ms={rules.mailAfterMs}
        isDisabled={!isOwner}
        set={(mailAfterMs) => change({ mailAfterMs })}
      />
      {rules.mailAfterMs === null || canMail ? null : (
        <>
          <Text kind="second" tone="ember">
            {said().noMail}
          </Text>
          {isOwner ? (
            <Row>
              <Button
                look="bare"
                label={said().setUpMail}
                onPress={() => router.navigate('/house/mail')}
              />
            </Row>
          ) : null}
        </>
      )}
      {rules.mailAfterMs === null ? null : (
        <Some
          label={said().toWhom}
          team={team}
          meant={owners.map(({ id }) => id)}
          ids={rules.mailIds}
          isDisabled={!isOwner}
          set={(mailIds) => change({ mailIds })}
        />
      )}
      <Problem text={problemOf(error)} />
    </Section>
  );
};

const styles = StyleSheet.create({ group: { gap: 4 } });
