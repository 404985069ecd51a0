import type { Holiday, HolidayChoice, HolidayRules, Spans } from '@porch/core/hours/opening';
import { useState } from 'react';
import { View } from 'react-native';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { countryOptions } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useCountries } from '../../../shell/session/countries';
import { problemOf } from '../../../shell/session/problems';
import { useHolidays } from '../data/hours';
import { dayInWords, spansInWords } from '../parts/in-words';
import { SpansSheet } from '../parts/spans-sheet';
import { words } from '../words';

/** So many are shown until all are asked for. */
const SHOWN_FIRST = 6;

const said = () => words().holidays;

type Kind = 'closed' | 'usual' | 'own';

const kindOf = (choice: HolidayChoice): Kind => (typeof choice === 'string' ? choice : 'own');

const choiceInWords = (choice: HolidayChoice): string =>
  typeof choice === 'string' ? said()[choice] : spansInWords(choice);

const kinds = (): [Kind, string][] => [
  ['closed', said().closed],
  ['usual', said().usual],
  ['own', said().own],
];

/** What holds on a holiday: shut, as usual, or hours of its own, which are asked for then. */
const ChoiceOf = (props: {
  label: string;
  more?: string;
  /** Null: nothing of its own is chosen; what is said in its place. */
  choice: HolidayChoice | null;
  otherwise?: string;
  isFixed: boolean;
  onChange: (choice: HolidayChoice | null) => void;
}) => {
  const { choice, otherwise } = props;
  const [isAsking, setAsking] = useState(false);
  const own: Spans = Array.isArray(choice) ? choice : [];
  const pick = (kind: string): void => {
    if (kind === 'own') setAsking(true);
    else props.onChange(kind === 'closed' || kind === 'usual' ? kind : null);
  };
  return (
    <View style={{ gap: 4 }}>
      <Select
        label={props.label}
        more={props.more}
        options={[...(otherwise ? [['others', otherwise] as const] : []), ...kinds()]}
        value={choice === null ? 'others' : kindOf(choice)}
        isDisabled={props.isFixed}
        onChange={pick}
      />
      {Array.isArray(choice) ? (
        <Row>
          <Text kind="second">{spansInWords(own)}</Text>
          {props.isFixed ? null : (
            <Button look="bare" label={said().own} onPress={() => setAsking(true)} />
          )}
        </Row>
      ) : null}
      {isAsking ? (
        <SpansSheet
          title={props.label}
          spans={own}
          close={() => setAsking(false)}
          take={(spans) => {
            setAsking(false);
            props.onChange(spans.length === 0 ? 'closed' : spans);
          }}
        />
      ) : null}
    </View>
  );
};

/** One of each holiday, the next of its kind, in the order in which they come. */
const nextOnes = (holidays: readonly Holiday[], today: string): Holiday[] => {
  const next = new Map<string, Holiday>();
  for (const holiday of [...holidays].sort((a, b) => a.day.localeCompare(b.day))) {
    if (holiday.day >= today && !next.has(holiday.key)) next.set(holiday.key, holiday);
  }
  return [...next.values()];
};

const Coming = (props: {
  rules: HolidayRules;
  holidays: readonly Holiday[];
  today: string;
  isFixed: boolean;
  onChange: (rules: HolidayRules) => void;
}) => {
  const { rules, isFixed, onChange } = props;
  const [isAll, setAll] = useState(false);
  const next = nextOnes(props.holidays, props.today);
  if (next.length === 0) return <Text tone="slate">{said().nothing}</Text>;
  const set = (key: string, choice: HolidayChoice | null): void => {
    const { [key]: _before, ...others } = rules.choices;
    onChange({ ...rules, choices: choice === null ? others : { ...others, [key]: choice } });
  };
  return (
    <View role="group" aria-label={said().coming} style={{ gap: 12 }}>
      <Text kind="label">{said().coming}</Text>
      {(isAll ? next : next.slice(0, SHOWN_FIRST)).map(({ day, key, name }) => (
        <ChoiceOf
          key={key}
          label={name}
          more={dayInWords(day)}
          choice={rules.choices[key] ?? null}
          otherwise={said().asOthers(choiceInWords(rules.others))}
          isFixed={isFixed}
          onChange={(choice) => set(key, choice)}
        />
      ))}
      {!isAll && next.length > SHOWN_FIRST ? (
        <Row>
          <Button look="bare" label={said().allOfThem(next.length)} onPress={() => setAll(true)} />
        </Row>
      ) : null}
    </View>
  );
};

/** Public holidays: of which place, what holds on them, and what on each. */
export const HolidaysPart = (props: {
  rules: HolidayRules | null;
  today: string;
  isFixed: boolean;
  onChange: (rules: HolidayRules | null) => void;
}) => {
  const { rules, isFixed, onChange } = props;
  const countries = useCountries('').data?.countries ?? [];
  const known =
    rules && !countries.includes(rules.country) ? [...countries, rules.country] : countries;
  const { data, error, isFetching } = useHolidays(
    isFixed ? '' : (rules?.country ?? ''),
    rules?.region ?? '',
  );
  const setCountry = (country: string): void =>
    onChange(
      country === ''
        ? null
        : { country, region: '', others: rules?.others ?? 'closed', choices: {} },
    );
  const regions = data?.regions ?? [];
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      <Select
        label={said().country}
        options={[['', said().none], ...countryOptions(known)]}
        value={rules?.country ?? ''}
        isDisabled={isFixed}
        onChange={setCountry}
      />
      {rules ? (
        <>
          {regions.length > 0 || rules.region ? (
            <Select
              label={said().region}
              options={[
                ['', said().whole],
                ...regions.map(({ code, name }) => [code, name] as const),
              ]}
              value={rules.region}
              isDisabled={isFixed}
              onChange={(region) => onChange({ ...rules, region, choices: {} })}
            />
          ) : null}
          <ChoiceOf
            label={said().others}
            choice={rules.others}
            isFixed={isFixed}
            onChange={(others) => onChange({ ...rules, others: others ?? 'closed' })}
          />
          {data ? (
            <Coming
              rules={rules}
              holidays={data.holidays}
              today={props.today}
              isFixed={isFixed}
              onChange={onChange}
            />
          ) : null}
          {isFetching && !data ? <Text tone="slate">{said().looking}</Text> : null}
          <Problem text={problemOf(error)} />
        </>
      ) : null}
    </Section>
  );
};
