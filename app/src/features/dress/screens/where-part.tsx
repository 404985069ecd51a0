import { answerManners } from '@porch/core/dress';
import type { Choosing, Manner, MannerRule } from '@porch/core/page-rules';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Row } from '../../../kit/fields/form';
import { LinesField } from '../../../kit/fields/lines-field';
import { Select } from '../../../kit/fields/select';
import { Tick } from '../../../kit/fields/tick';
import { countryOptions } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { useCountries } from '../../../shell/session/countries';
import { words } from '../words';
import { type Editing, placed } from './editor';

const said = () => words().where;

const modesNow = () =>
  (['all', 'only', 'except'] as const).map((mode) => [mode, said().modes[mode]] as const);

const Countries = (props: {
  chosen: Choosing;
  problem: string;
  set: (chosen: Choosing) => void;
}) => {
  const { chosen, set } = props;
  const { data } = useCountries('');
  const options = countryOptions(data?.countries ?? []);
  const nameOf = (code: string): string => options.find(([one]) => one === code)?.[1] ?? code;
  const left = options.filter(([code]) => !chosen.these.includes(code));
  return (
    <>
      <Choice
        label={said().countries}
        options={modesNow()}
        value={chosen.mode}
        onChange={(mode) => set({ ...chosen, mode })}
      />
      <Text kind="second" tone="slate">
        {said().countriesMore}
      </Text>
      {chosen.mode === 'all' ? null : (
        <>
          {chosen.these.map((code) => (
            <Row key={code}>
              <Text style={styles.grow}>{nameOf(code)}</Text>
              <Button
                look="bare"
                label={said().countryDrop(nameOf(code))}
                onPress={() =>
                  set({ ...chosen, these: chosen.these.filter((one) => one !== code) })
                }
              />
            </Row>
          ))}
          <Select
            label={said().countryAdd}
            options={[['', ''], ...left]}
            value=""
            onChange={(code) => code && set({ ...chosen, these: [...chosen.these, code] })}
          />
          {props.problem ? (
            <Text kind="second" tone="brick" role="alert">
              {props.problem}
            </Text>
          ) : null}
        </>
      )}
    </>
  );
};

const MannerLine = (props: {
  rule: MannerRule;
  problem: string;
  secondsProblem: string;
  change: (rule: MannerRule) => void;
  drop: () => void;
  up: (() => void) | null;
}) => {
  const theme = useTheme();
  const { rule, change } = props;
  return (
    <View style={[styles.manner, { borderColor: theme.edge }]}>
      <Field
        label={said().pattern}
        value={rule.pattern}
        autoCapitalize="none"
        maxLength={400}
        problem={props.problem}
        onChangeText={(pattern) => change({ ...rule, pattern })}
      />
      <Choice
        label={said().manner}
        isLabelHidden
        options={(['quiet', 'peek', 'open'] as Manner[]).map(
          (manner) => [manner, said().mannerNames[manner]] as const,
        )}
        value={rule.manner}
        onChange={(manner) => change({ ...rule, manner })}
      />
      {rule.manner === 'quiet' ? null : (
        <Field
          label={said().after}
          value={Number.isNaN(rule.afterSeconds) ? '' : String(rule.afterSeconds)}
          inputMode="numeric"
          maxLength={4}
          problem={props.secondsProblem}
          onChangeText={(text) =>
            change({ ...rule, afterSeconds: text.trim() === '' ? Number.NaN : Number(text) })
          }
        />
      )}
      <Row>
        {props.up ? <Button look="bare" label={said().up} onPress={props.up} /> : null}
        <Button look="bare" label={said().dropManner} onPress={props.drop} />
      </Row>
    </View>
  );
};

const Manners = ({ dress, set, problemAt }: Editing) => {
  const { manners } = dress.where;
  const put = (next: MannerRule[]): void =>
    set({ ...dress, where: { ...dress.where, manners: next } });
  const swapped = (index: number): MannerRule[] => {
    const next = [...manners];
    const [moved] = next.splice(index, 1);
    if (moved) next.splice(index - 1, 0, moved);
    return next;
  };
  return (
    <>
      <Text kind="name" role="heading" aria-level={2}>
        {said().manners}
      </Text>
      <Text kind="second" tone="slate">
        {said().mannersMore}
      </Text>
      {placed(manners).map(({ one: rule, key }, index) => (
        <MannerLine
          key={key}
          rule={rule}
          problem={problemAt(`where.manners.${index}.pattern`)}
          secondsProblem={problemAt(`where.manners.${index}.afterSeconds`)}
          change={(next) => put(manners.map((one, at) => (at === index ? next : one)))}
          drop={() => put(manners.filter((_one, at) => at !== index))}
          up={index > 0 ? () => put(swapped(index)) : null}
        />
      ))}
      <Row>
        <Button
          label={said().addManner}
          onPress={() => put([...manners, { pattern: '*', manner: 'peek', afterSeconds: 15 }])}
        />
      </Row>
    </>
  );
};

/** On which pages, in which countries, on which screens, and how the door behaves there. */
export const WherePart = (editing: Editing) => {
  const { dress, set, problemAt } = editing;
  const { where } = dress;
  const change = (change: Partial<typeof where>): void =>
    set({ ...dress, where: { ...where, ...change } });
  return (
    <>
      <Choice
        label={said().pages}
        options={modesNow()}
        value={where.pages.mode}
        onChange={(mode) => change({ pages: { ...where.pages, mode } })}
      />
      {where.pages.mode === 'all' ? null : (
        <LinesField
          label={said().pageList}
          more={said().pageListMore}
          lines={where.pages.these}
          autoCapitalize="none"
          maxLength={10_000}
          problem={problemAt('where.pages')}
          onChangeLines={(these) => change({ pages: { ...where.pages, these } })}
        />
      )}
      <Countries
        chosen={where.countries}
        problem={problemAt('where.countries')}
        set={(countries) => change({ countries })}
      />
      <Tick
        label={said().small}
        isOn={where.onSmallScreens}
        onChange={(onSmallScreens) => change({ onSmallScreens })}
      />
      <Choice
        label={said().onAnswer}
        options={answerManners.map((manner) => [manner, said().answerManners[manner]] as const)}
        value={dress.onAnswer}
        onChange={(onAnswer) => set({ ...dress, onAnswer })}
      />
      <Text kind="second" tone="slate">
        {said().onAnswerMore}
      </Text>
      <Manners {...editing} />
    </>
  );
};

const styles = StyleSheet.create({
  grow: { flex: 1 },
  manner: { gap: 10, padding: 12, borderWidth: 1, borderRadius: corner },
});
