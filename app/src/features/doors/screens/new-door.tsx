import type { NetworkKind } from '@porch/contract/doors';
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { DoorPlate } from '../../../kit/drawn/door-plate';
import { Field } from '../../../kit/fields/field';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { languageName } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { WayRow } from '../../../kit/way-row';
import { HousePage } from '../../../shell/frame/house-page';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { useNewDoor } from '../data/doors';
import { useMakeNetworkDoor, useNetworkKinds } from '../data/networks';
import { networkWords } from '../kinds';
import { DeveloperPage } from '../parts/developer-page';
import { NetworkFields } from '../parts/network-fields';
import { shippedCodes } from '../parts/shipped-languages';
import { words } from '../words';
import { doorWords } from '../words/network';

const SITE = 'site';

const NameField = (props: {
  value: string;
  error: Error | null;
  change: (text: string) => void;
}) => (
  <Field
    label={words().name}
    more={words().nameMore}
    value={props.value}
    maxLength={80}
    problem={problemOf(props.error, 'name')}
    onChangeText={props.change}
  />
);

const goTo = ({ id }: { id: string }): void => router.replace(`/house/door/${id}`);

const NewSite = () => {
  const [name, setName] = useState('');
  const [language, setLanguage] = useState('en');
  const { mutate, error, isPending } = useNewDoor();
  return (
    <>
      <NameField value={name} error={error} change={setName} />
      <Select
        label={words().language}
        options={shippedCodes.map((code) => [code, languageName(code)])}
        value={language}
        onChange={setLanguage}
      />
      <Problem text={problemElsewhere(error, ['name'])} />
      <Button
        look="main"
        label={words().make}
        disabled={isPending}
        onPress={() => mutate({ name, language }, { onSuccess: goTo })}
      />
    </>
  );
};

const NewNetwork = ({ network: { kind, fields } }: { network: NetworkKind }) => {
  const said = networkWords(kind);
  const [name, setName] = useState(said?.name ?? '');
  const [given, setGiven] = useState<Readonly<Record<string, string>>>({});
  const { mutate, error, isPending, reset } = useMakeNetworkDoor();
  if (!said) return <Text tone="ember">{doorWords().unknownKind}</Text>;
  return (
    <>
      <Text tone="slate">{said.find}</Text>
      <NetworkFields
        said={said}
        fields={fields}
        typed={given}
        error={error}
        change={(id, text) => {
          setGiven({ ...given, [id]: text });
          reset();
        }}
      />
      <NameField value={name} error={error} change={setName} />
      <Problem text={problemElsewhere(error, ['name', ...fields.map(({ id }) => id)])} />
      <Button
        look="main"
        label={words().make}
        disabled={isPending}
        onPress={() => mutate({ kind, name, given }, { onSuccess: goTo })}
      />
      <DeveloperPage kind={kind} />
    </>
  );
};

/** Adds a door: first of which kind, then what is asked for it. */
export const NewDoor = () => {
  const { data: kinds, isError, refetch } = useNetworkKinds();
  const [chosen, choose] = useState<string | null>(null);
  if (isError && !kinds) return <Failed retry={() => void refetch()} />;
  if (!kinds) return <RowsComing />;
  const network = kinds.find(({ kind }) => kind === chosen);
  const real = kinds.filter(({ isOnStreet }) => !isOnStreet);
  const made = kinds.filter(({ isOnStreet }) => isOnStreet);
  const rowOf = ({ kind, plate }: NetworkKind) => {
    const said = networkWords(kind);
    return said ? (
      <WayRow
        key={kind}
        icon={<DoorPlate plate={plate} />}
        title={said.name}
        more={said.more}
        to={() => choose(kind)}
      />
    ) : null;
  };
  const called = network ? networkWords(network.kind)?.name : words().newSite;
  return (
    <HousePage title={chosen ? words().newOf(called ?? '') : words().newTitle} isBehind>
      {chosen === null ? (
        <>
          <Text tone="slate">{words().newMore}</Text>
          <View role="group" aria-label={words().newKind}>
            <WayRow
              icon={<DoorPlate />}
              title={words().newSite}
              more={words().newSiteMore}
              to={() => choose(SITE)}
            />
            {real.map(rowOf)}
          </View>
          {made.length > 0 ? (
            <Section title={doorWords().onStreet}>
              <Text kind="second" tone="slate">
                {doorWords().onStreetMore}
              </Text>
              <View>{made.map(rowOf)}</View>
            </Section>
          ) : null}
        </>
      ) : (
        <>
          {network ? <NewNetwork network={network} /> : <NewSite />}
          <Row>
            <Button look="bare" label={words().another} onPress={() => choose(null)} />
          </Row>
        </>
      )}
    </HousePage>
  );
};
