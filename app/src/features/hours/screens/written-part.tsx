import type { Holiday, HolidayRules, OpeningHours } from '@porch/core/hours/opening';
import {
  HOURS_TEXT_LONGEST,
  type LeftOut,
  readHours,
  toJsonLd,
  toOsm,
  type WrittenHours,
} from '@porch/core/hours/written';
import { useState } from 'react';
import { View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Copy, Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { words } from '../words';

const said = () => words().written;

/** What could not be carried, each as it stood and why. */
const Left = ({ left }: { left: readonly LeftOut[] }) =>
  left.length === 0 ? null : (
    <View role="list" aria-label={said().left}>
      <Text kind="label">{said().left}</Text>
      {left.map(({ text, why }) => (
        <Text key={`${why} ${text}`} kind="second" role="listitem">
          {`“${text}”: ${said().leftWhy[why]}`}
        </Text>
      ))}
    </View>
  );

const Out = (props: { label: string; copy: string; written: WrittenHours }) => (
  <View role="group" aria-label={props.label} style={{ gap: 8 }}>
    <Text kind="label">{props.label}</Text>
    <Copy text={props.written.text} label={props.copy} isCode />
    <Left left={props.written.left} />
  </View>
);

/** Hours as a text in an open notation: pasted in and taken out. */
export const WrittenPart = (props: {
  hours: OpeningHours | null;
  name: string;
  country: string;
  holidays: readonly Holiday[];
  today: string;
  isFixed: boolean;
  onRead: (hours: OpeningHours) => void;
}) => {
  const { hours, today, isFixed } = props;
  const [text, setText] = useState('');
  const [isShown, setShown] = useState(false);
  const [outcome, setOutcome] = useState<{ left: LeftOut[]; more: string; isRead: boolean } | null>(
    null,
  );
  const read = (): void => {
    const { week, spells, onHolidays, left } = readHours(text, today);
    const isRead = week.some((spans) => spans.length > 0) || spells.length > 0;
    const country = hours?.holidays?.country || props.country;
    const place: Pick<HolidayRules, 'country' | 'region'> = {
      country,
      region: hours?.holidays?.region ?? '',
    };
    const isPlaced = onHolidays !== null && country !== '';
    const holidays = isPlaced
      ? { ...place, others: onHolidays, choices: {} }
      : (hours?.holidays ?? null);
    if (isRead) props.onRead({ week, spells, holidays });
    const more = isRead ? said().done : said().nothing;
    const noCountry = isRead && onHolidays !== null && country === '' ? ` ${said().noCountry}` : '';
    setOutcome({ left, isRead, more: more + noCountry });
  };
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      {isFixed ? null : (
        <>
          <Field
            label={said().paste}
            more={said().pasteMore}
            value={text}
            multiline
            numberOfLines={3}
            maxLength={HOURS_TEXT_LONGEST}
            autoCapitalize="none"
            autoCorrect={false}
            spellCheck={false}
            onChangeText={(typed) => {
              setText(typed);
              setOutcome(null);
            }}
          />
          <Row>
            <Button label={said().read} disabled={!text.trim()} onPress={read} />
          </Row>
          {outcome?.isRead ? (
            <Text tone="moss" role="status">
              {outcome.more}
            </Text>
          ) : (
            <Problem text={outcome?.more ?? ''} />
          )}
          <Left left={outcome?.left ?? []} />
        </>
      )}
      {hours && !isShown ? (
        <Row>
          <Button look="bare" label={said().show} onPress={() => setShown(true)} />
        </Row>
      ) : null}
      {hours && isShown ? (
        <>
          <Out
            label={said().osm}
            copy={said().copyOsm}
            written={toOsm(hours, props.holidays, today)}
          />
          <Out
            label={said().jsonLd}
            copy={said().copyJsonLd}
            written={toJsonLd(hours, props.name, props.holidays, today)}
          />
        </>
      ) : null}
    </Section>
  );
};
