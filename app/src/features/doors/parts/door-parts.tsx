import type { Door } from '@porch/contract/doors';
import type { House } from '@porch/contract/house';
import { useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { problemOf } from '../../../shell/session/problems';
import { useChangeDoor } from '../data/doors';
import { words } from '../words';

/** What a door is called. */
export const NameForm = ({ door, isOwner }: { door: Door; isOwner: boolean }) => {
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

/** Who is shown at a door and hears its bell; everybody, unless somebody is left out. */
export const Concerns = (props: { door: Door; house: House; more: string }) => {
  const { door, house } = props;
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
        {props.more}
      </Text>
      {team.map(({ id, name }) => (
        <Tick key={id} label={name} isOn={chosen.includes(id)} onChange={(isOn) => set(id, isOn)} />
      ))}
      <Problem text={problemOf(error)} />
    </Section>
  );
};

/** A door can be closed, and opened again. */
export const Closing = ({ door, more }: { door: Door; more: string }) => {
  const { mutate, error } = useChangeDoor(door.id);
  return (
    <Section title={words().closing}>
      <Text kind="second" tone={door.isClosed ? 'ember' : 'slate'}>
        {door.isClosed ? words().isClosed : more}
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
