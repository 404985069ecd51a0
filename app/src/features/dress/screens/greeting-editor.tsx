import { languagesOf } from '@porch/core/dress';
import type { Greeting } from '@porch/core/greetings';
import { StyleSheet, View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Problem, Row } from '../../../kit/fields/form';
import { FreshField } from '../../../kit/fields/fresh-field';
import { LinesField } from '../../../kit/fields/lines-field';
import { Select } from '../../../kit/fields/select';
import { Tick } from '../../../kit/fields/tick';
import { languageName } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useHouse } from '../../../shell/session/house';
import { LookedThrough } from '../../writing/parts/late';
import { words } from '../words';
import type { Editing } from './editor';

const said = () => words().greetings;

interface Props extends Editing {
  greeting: Greeting;
  change: (greeting: Greeting) => void;
  leave: () => void;
  drop: () => void;
  tryOn: ((greeting: string) => void) | null;
  visitsProblem: string;
}

const asNumber = (text: string): number => (text.trim() === '' ? Number.NaN : Number(text));
const asText = (value: number | null): string =>
  value === null || Number.isNaN(value) ? '' : String(value);

/** In whose name: whoever has left stands there until somebody else does. */
const Who = ({ greeting, change }: Pick<Props, 'greeting' | 'change'>) => {
  const { memberId } = greeting;
  const team = (useHouse().data?.team ?? []).filter(({ hasLeft }) => !hasLeft);
  const isThere = memberId === null || team.some(({ id }) => id === memberId);
  return (
    <Select
      label={said().who}
      options={[
        ['', said().business],
        ...(isThere ? [] : [[memberId, said().left] as const]),
        ...team.map(({ id, name }) => [id, name] as const),
      ]}
      value={memberId ?? ''}
      onChange={(id) => change({ ...greeting, memberId: id || null })}
    />
  );
};

/** To whom it is said: by visit, and by where they came from. */
const Visitors = (props: Props) => {
  const { greeting, change, problemAt, visitsProblem } = props;
  const { visits, cameFrom } = greeting;
  return (
    <>
      <View style={styles.two}>
        <View style={styles.half}>
          <Field
            label={said().least}
            more={said().leastMore}
            value={asText(visits.least)}
            inputMode="numeric"
            maxLength={5}
            onChangeText={(text) =>
              change({ ...greeting, visits: { ...visits, least: asNumber(text) } })
            }
          />
        </View>
        <View style={styles.half}>
          <Field
            label={said().most}
            more={said().mostMore}
            value={asText(visits.most)}
            inputMode="numeric"
            maxLength={5}
            onChangeText={(text) => {
              const most = text.trim() === '' ? null : Number(text);
              change({ ...greeting, visits: { ...visits, most } });
            }}
          />
        </View>
      </View>
      <Problem text={visitsProblem} />
      <LinesField
        label={said().cameFrom}
        more={said().cameFromMore}
        lines={cameFrom}
        autoCapitalize="none"
        maxLength={4_000}
        problem={problemAt(`greetings.${greeting.id}.cameFrom`)}
        onChangeLines={(hosts) =>
          change({ ...greeting, cameFrom: hosts.map((host) => host.trim()) })
        }
      />
    </>
  );
};

/** One greeting: what is said, in whose name, where, when and to whom. */
export const GreetingEditor = (props: Props) => {
  const { dress, greeting, change, problemAt, tryOn } = props;
  const put = (part: Partial<Greeting>): void => change({ ...greeting, ...part });
  const at = (part: string): string => problemAt(`greetings.${greeting.id}.${part}`);
  return (
    <View style={styles.all}>
      <Row>
        <Button look="bare" label={`‹ ${said().back}`} onPress={props.leave} />
      </Row>
      <Tick label={said().isOn} isOn={greeting.isOn} onChange={(isOn) => put({ isOn })} />
      <FreshField
        label={said().text}
        more={said().textMore}
        value={greeting.text}
        multiline
        numberOfLines={3}
        maxLength={2_000}
        problem={at('text')}
        onChangeText={(text) => put({ text })}
      />
      {greeting.text.trim() ? (
        <LookedThrough
          text={greeting.text}
          language={greeting.language}
          hasGaps={false}
          change={(text) => put({ text })}
        />
      ) : null}
      <Who greeting={greeting} change={change} />
      <Select
        label={said().language}
        more={said().languageMore}
        options={languagesOf(dress).map((code): [string, string] => [code, languageName(code)])}
        value={greeting.language}
        onChange={(language) => put({ language })}
      />
      <LinesField
        label={said().pages}
        more={said().pagesMore}
        lines={greeting.pages}
        autoCapitalize="none"
        maxLength={10_000}
        problem={at('pages')}
        onChangeLines={(pages) => put({ pages })}
      />
      <Field
        label={said().after}
        value={asText(greeting.afterSeconds)}
        inputMode="numeric"
        maxLength={4}
        problem={at('afterSeconds')}
        onChangeText={(text) => put({ afterSeconds: asNumber(text) })}
      />
      <Visitors {...props} />
      <Tick
        label={said().whileNotLit}
        more={said().whileNotLitMore}
        isOn={greeting.whileNotLit}
        onChange={(whileNotLit) => put({ whileNotLit })}
      />
      <Row>
        <Button
          label={said().tryOn}
          disabled={tryOn === null}
          onPress={() => tryOn?.(greeting.id)}
        />
      </Row>
      <Text kind="small" tone="slate">
        {said().tryOnMore}
      </Text>
      <Row>
        <Button look="bare" tone="brick" label={said().drop} onPress={props.drop} />
      </Row>
    </View>
  );
};

const styles = StyleSheet.create({
  all: { gap: 16 },
  two: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  half: { flexGrow: 1, flexBasis: 150 },
});
