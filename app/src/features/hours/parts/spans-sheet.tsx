import { DAY_MINUTES, type Span, type Spans, tidySpans } from '@porch/core/hours/opening';
import { clockMinute, clockText, spanFrom } from '@porch/core/hours/written';
import X from 'lucide-react-native/icons/x';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Problem, Row } from '../../../kit/fields/form';
import { MomentField } from '../../../kit/fields/moment-field';
import { Tick } from '../../../kit/fields/tick';
import { Button, GlyphButton } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { words } from '../words';

/** As many as a day may have. */
const SPANS_MOST = 12;
const USUAL: Typed = { from: '09:00', to: '17:30' };
const WORKDAYS = [0, 1, 2, 3, 4];
const EVERY_DAY = [0, 1, 2, 3, 4, 5, 6];

/** Two times as they stand in the fields; "00:00" as an end is the end of the day. */
interface Typed {
  from: string;
  to: string;
}

const typedOf = ({ from, to }: Span): Typed => ({
  from: clockText(from),
  to: clockText(to % DAY_MINUTES),
});

const spanOf = ({ from, to }: Typed): Span | null => {
  const [begins, ends] = [clockMinute(from), clockMinute(to)];
  return begins === null || ends === null ? null : spanFrom(begins, ends);
};

const said = () => words().sheet;

const SpanFields = (props: {
  typed: Typed;
  nth: number;
  onChange: (typed: Typed) => void;
  remove: () => void;
}) => {
  const theme = useTheme();
  const { typed, nth, onChange } = props;
  const span = spanOf(typed);
  const isWhole = span !== null && span.to - span.from === DAY_MINUTES;
  const note = isWhole ? said().wholeDay : span && span.to > DAY_MINUTES ? said().pastMidnight : '';
  return (
    <View style={styles.span}>
      <View style={styles.times}>
        <MomentField
          kind="time"
          label={said().from(nth)}
          value={typed.from}
          onChange={(from) => onChange({ ...typed, from })}
        />
        <MomentField
          kind="time"
          label={said().to(nth)}
          value={typed.to}
          onChange={(to) => onChange({ ...typed, to })}
        />
        <GlyphButton label={said().remove(nth)} onPress={props.remove}>
          <X size={22} color={theme.ink} aria-hidden />
        </GlyphButton>
      </View>
      {note ? (
        <Text kind="second" tone="slate">
          {note}
        </Text>
      ) : null}
    </View>
  );
};

/** The exact times of a day, and for a day of the week which others have the same. */
export const SpansSheet = (props: {
  title: string;
  spans: Spans;
  /** The day of the week (0 for Monday) that can be copied to others. */
  weekday?: number;
  take: (spans: Span[], weekdays: readonly number[]) => void;
  close: () => void;
}) => {
  const { weekday } = props;
  const [typed, setTyped] = useState<readonly Typed[]>(() => props.spans.map(typedOf));
  const [also, setAlso] = useState<readonly number[]>([]);
  const [problem, setProblem] = useState('');
  const change = (next: readonly Typed[]): void => {
    setTyped(next);
    setProblem('');
  };
  const spans = typed.map(spanOf);
  const whole = spans.filter((span) => span !== null);
  const isTogether = tidySpans(whole).length < whole.length;
  const take = (): void => {
    if (whole.length < spans.length) setProblem(said().incomplete);
    else props.take(tidySpans(whole), weekday === undefined ? also : [...also, weekday]);
  };
  return (
    <Sheet title={props.title} close={props.close}>
      {typed.length === 0 ? <Text>{words().shut}</Text> : null}
      {typed.map((one, index) => (
        <SpanFields
          // biome-ignore lint/suspicious/noArrayIndexKey: spans are told apart by their place alone
          key={index}
          typed={one}
          nth={index + 1}
          onChange={(next) => change(typed.map((other, at) => (at === index ? next : other)))}
          remove={() => change(typed.filter((_other, at) => at !== index))}
        />
      ))}
      {isTogether ? (
        <Text kind="second" tone="ember" role="status">
          {said().together}
        </Text>
      ) : null}
      {typed.length >= SPANS_MOST ? (
        <Text kind="second" tone="slate">
          {said().most(SPANS_MOST)}
        </Text>
      ) : null}
      <Row>
        {typed.length < SPANS_MOST ? (
          <Button
            label={said().add}
            onPress={() => change([...typed, typed.length === 0 ? USUAL : { from: '', to: '' }])}
          />
        ) : null}
        {typed.length > 0 ? (
          <Button look="bare" label={said().shut} onPress={() => change([])} />
        ) : null}
        <Button
          look="bare"
          label={said().all}
          onPress={() => change([{ from: '00:00', to: '00:00' }])}
        />
      </Row>
      {weekday === undefined ? null : (
        <View role="group" aria-label={said().copy} style={styles.copy}>
          <Text kind="label">{said().copy}</Text>
          <Row>
            <Button
              look="bare"
              label={said().workdays}
              onPress={() => setAlso(WORKDAYS.filter((one) => one !== weekday))}
            />
            <Button
              look="bare"
              label={said().everyDay}
              onPress={() => setAlso(EVERY_DAY.filter((one) => one !== weekday))}
            />
          </Row>
          {EVERY_DAY.filter((one) => one !== weekday).map((one) => (
            <Tick
              key={one}
              label={words().days[one] ?? ''}
              isOn={also.includes(one)}
              onChange={(isOn) =>
                setAlso(isOn ? [...also, one] : also.filter((other) => other !== one))
              }
            />
          ))}
        </View>
      )}
      <Problem text={problem} />
      <Button look="main" label={said().take} onPress={take} />
    </Sheet>
  );
};

const styles = StyleSheet.create({
  span: { gap: 4 },
  times: { flexDirection: 'row', alignItems: 'flex-end', gap: 8 },
  copy: { gap: 4 },
});
