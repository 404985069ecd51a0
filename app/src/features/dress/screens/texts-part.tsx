import {
  shippedLanguages,
  type TextKey,
  textKeys,
  textsIn,
  toLanguage,
} from '@porch/core/door-texts';
import { gapsFor, languagesOf } from '@porch/core/dress';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Done, Problem, Row } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { languageName } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useHouse } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useTick } from '../../house/data/checklist';
import { LookedThrough } from '../../writing/parts/late';
import { words } from '../words';
import { type Editing, placed } from './editor';

const said = () => words().texts;

export type TextState = 'lit' | 'soon' | 'dark' | 'all';

type StateKind = keyof ReturnType<typeof said>['labels'];

const stateKinds = (): StateKind[] => Object.keys(said().labels) as StateKind[];

/** Whether a text stands on the closed door, or beside it. */
const isOnThePlate = (key: TextKey): boolean => /^(plate|peek)\./.test(key);

/** Keys that read the same whatever the light shows. */
const everywhereKeys = textKeys.filter((key) => !/\.(lit|soon|dark)$/.test(key));

const keysFor = (state: TextState): TextKey[] =>
  state === 'all' ? everywhereKeys : stateKinds().map((kind) => `${kind}.${state}` as const);

const labelOf = (key: TextKey): string => {
  const [kind = ''] = key.split('.');
  // Where a text is one of many small ones, what it says in English names it best.
  return kind in said().labels && key !== kind
    ? said().labels[kind as StateKind]
    : textsIn('en')[key];
};

const AddLanguage = (props: { add: (code: string) => void }) => {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const add = (): void => {
    const code = toLanguage(typed);
    if (!code) {
      setProblem(said().addWrong);
      return;
    }
    setTyped('');
    props.add(code);
  };
  return (
    <>
      <Field
        label={said().add}
        more={said().addMore}
        value={typed}
        maxLength={8}
        autoCapitalize="none"
        problem={problem}
        onChangeText={(text) => {
          setTyped(text);
          setProblem('');
        }}
        onSubmitEditing={add}
      />
      <Row>
        <Button label={said().addDo} onPress={add} />
      </Row>
    </>
  );
};

const OwnQuestions = (props: Editing & { text: TextOf }) => {
  const { own } = props.dress.guestBook;
  const { links } = props.dress;
  if (own.length + links.length === 0) return null;
  return (
    <>
      <Text kind="label">{said().own}</Text>
      {own.flatMap(({ id, label, choices }) => [
        <Field key={id} label={label} placeholder={label} {...props.text(`own.${id}`)} />,
        ...placed(choices).map(({ one: choice, key }, index) => (
          <Field
            key={`${id} ${key}`}
            label={`${label}: ${choice}`}
            placeholder={choice}
            {...props.text(`own.${id}.${index}`)}
          />
        )),
      ])}
      {links.map(({ id, label }) => (
        <Field key={id} label={label} placeholder={label} {...props.text(`link.${id}`)} />
      ))}
    </>
  );
};

type TextOf = (key: string) => {
  value: string;
  problem: string;
  onChangeText: (text: string) => void;
};

/** That the texts for the dark were read is something only the owner can say. */
const ReadOver = () => {
  const isRead = useHouse().data?.checklist?.darkTexts ?? false;
  const tick = useTick();
  if (isRead) return <Done text={said().isReadOver} />;
  return (
    <>
      <Button look="main" label={said().readOver} onPress={() => tick.mutate('dark-texts')} />
      <Problem text={problemOf(tick.error)} />
    </>
  );
};

/** Every text that a visitor can see, by language and by what the light shows. */
export const TextsPart = (
  props: Editing & {
    language: string;
    setLanguage: (language: string) => void;
    state: TextState;
    setState: (state: TextState) => void;
  },
) => {
  const { dress, set, problemAt, language, state } = props;
  const languages = languagesOf(dress);
  const [lookedAt, setLookedAt] = useState<TextKey | null>(null);
  const own = dress.texts[language] ?? {};
  const defaults = textsIn(language, dress.fallback);
  const text: TextOf = (key) => ({
    value: own[key] ?? '',
    problem: problemAt(`texts.${language}.${key}`),
    onChangeText: (typed) =>
      set({ ...dress, texts: { ...dress.texts, [language]: { ...own, [key]: typed } } }),
  });
  const add = (code: string): void => {
    if (!languages.includes(code)) set({ ...dress, texts: { ...dress.texts, [code]: {} } });
    props.setLanguage(code);
  };
  const options = languages.map((code): [string, string] => [code, languageName(code)]);
  const remove = (): void => {
    const { [language]: _gone, ...texts } = dress.texts;
    const fallback = dress.fallback === language ? 'en' : dress.fallback;
    props.setLanguage(fallback);
    set({ ...dress, texts, fallback });
  };
  return (
    <>
      <Select
        label={words().language}
        options={options}
        value={language}
        onChange={props.setLanguage}
      />
      <Choice
        label={said().state}
        options={[
          ['lit', words().states.lit],
          ['soon', words().states.soon],
          ['dark', words().states.dark],
          ['all', words().states.all],
        ]}
        value={state}
        onChange={props.setState}
      />
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      {keysFor(state).map((key) => {
        const gaps = gapsFor(key);
        return (
          <View key={key} style={styles.text}>
            <Field
              label={labelOf(key)}
              more={
                gaps.length > 0 ? said().gaps(gaps.map((gap) => `{${gap}}`).join(', ')) : undefined
              }
              placeholder={defaults[key]}
              multiline={defaults[key].length > 50}
              maxLength={20_000}
              {...text(key)}
              onFocus={() => {
                setLookedAt(key);
                props.look({ isOpen: !isOnThePlate(key) });
              }}
            />
            {lookedAt === key && own[key] ? (
              <LookedThrough
                text={own[key]}
                language={language}
                hasGaps={false}
                change={text(key).onChangeText}
              />
            ) : null}
          </View>
        );
      })}
      {state === 'all' ? <OwnQuestions {...props} text={text} /> : null}
      {state === 'dark' ? <ReadOver /> : null}
      <Select
        label={said().fallback}
        options={options}
        value={dress.fallback}
        onChange={(fallback) => set({ ...dress, fallback })}
      />
      <AddLanguage add={add} />
      {shippedLanguages.includes(language) ? null : (
        <Row>
          <Button tone="brick" label={said().remove} onPress={remove} />
        </Row>
      )}
    </>
  );
};

const styles = StyleSheet.create({ text: { gap: 8 } });
