import type { Member } from '@porch/contract/people';
import { router } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { HousePage } from '../../../shell/frame/house-page';
import { outbox } from '../../../shell/live/outbox';
import { useTyped } from '../../../shell/offline/typed';
import { PictureField } from '../../../shell/pictures/picture-field';
import { useHouse } from '../../../shell/session/house';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { useChangeMe, useChangePassword, useFace, useLeave } from '../data/team';
import { words } from '../words';

const said = () => words().me;

const Names = ({ me }: { me: Member }) => {
  const { typed, set, drop } = useTyped('me', { name: me.name, publicName: me.publicName });
  const { mutate, error, isPending, isSuccess, reset } = useChangeMe();
  const face = useFace();
  const typing = (field: 'name' | 'publicName') => (text: string) => {
    set({ [field]: text });
    reset();
  };
  return (
    <Section title={said().name}>
      <Field
        label={said().name}
        more={said().nameMore}
        value={typed.name}
        maxLength={80}
        problem={problemOf(error, 'name')}
        onChangeText={typing('name')}
      />
      <Field
        label={said().publicName}
        more={said().publicNameMore}
        value={typed.publicName}
        maxLength={80}
        problem={problemOf(error, 'publicName')}
        onChangeText={typing('publicName')}
      />
      <Problem text={problemElsewhere(error, ['name', 'publicName'])} />
      <Row>
        <Button
          label={kitWords().save}
          disabled={isPending}
          onPress={() => mutate(typed, { onSuccess: drop })}
        />
        {isSuccess ? <Done text={kitWords().saved} /> : null}
      </Row>
      <PictureField
        label={said().face}
        name={me.name}
        pictureId={me.pictureId}
        shape="round"
        problem={problemOf(face.error)}
        set={(cut) => face.mutate(cut)}
      />
    </Section>
  );
};

const Password = () => {
  const [typed, setTyped] = useState({ old: '', new: '' });
  const { mutate, error, isPending, isSuccess, reset } = useChangePassword();
  const field = (which: 'old' | 'new') => ({
    value: typed[which],
    secureTextEntry: true,
    maxLength: 200,
    problem: problemOf(error, which),
    onChangeText: (text: string) => {
      setTyped({ ...typed, [which]: text });
      reset();
    },
  });
  return (
    <Section title={said().password}>
      <Field label={said().old} autoComplete="current-password" {...field('old')} />
      <Field label={said().fresh} autoComplete="new-password" {...field('new')} />
      <Problem text={problemElsewhere(error, ['old', 'new'])} />
      <Row>
        <Button
          label={said().changePassword}
          disabled={isPending}
          onPress={() => mutate(typed, { onSuccess: () => setTyped({ old: '', new: '' }) })}
        />
      </Row>
      {isSuccess ? <Done text={said().passwordChanged} /> : null}
    </Section>
  );
};

const Leaving = () => {
  const [isAsking, setAsking] = useState(false);
  const { mutate, error } = useLeave();
  const leave = (): void =>
    mutate(undefined, {
      onSuccess: () => {
        outbox.clear();
        router.replace('/sign-in');
      },
    });
  return (
    <Section title={said().leave}>
      {isAsking ? (
        <View role="alert" style={styles.ask}>
          <Text tone="brick">{said().leaveSure}</Text>
          <Row>
            <Button tone="brick" label={said().leaveYes} onPress={leave} />
            <Button look="bare" label={said().stay} onPress={() => setAsking(false)} />
          </Row>
        </View>
      ) : (
        <Row>
          <Button tone="brick" label={said().leave} onPress={() => setAsking(true)} />
        </Row>
      )}
      <Problem text={problemOf(error)} />
    </Section>
  );
};

/** What everybody may change about themselves. */
export const Me = () => {
  const { data: house } = useHouse();
  if (!house?.me) return <RowsComing />;
  return (
    <HousePage title={said().title} isBehind>
      <Names me={house.me} />
      <Password />
      <Leaving />
    </HousePage>
  );
};

const styles = StyleSheet.create({ ask: { gap: 12 } });
