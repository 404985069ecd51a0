import { dayOf, daysToMonday, momentTyped, timeOnDay } from '@porch/core/hours';
import { momentSaid } from '@porch/core/moments';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { MomentField } from '../../../kit/fields/moment-field';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { serverNow } from '../../../shell/live/store';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { words } from '../words';

const HOUR_MS = 3_600_000;
const LONGEST_MS = 365 * 24 * HOUR_MS;

/** Asks until when a conversation is put by. */
export const PutBySheet = (props: { put: (until: number) => void; close: () => void }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const evening = timeOnDay(now, zone, 0, 18);
  const tomorrow = timeOnDay(now, zone, 1, 9);
  const [day, setDay] = useState(() => dayOf(tomorrow, zone));
  const [time, setTime] = useState('09:00');
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const choices = [
    ...(evening > now ? [{ label: words().putBy.evening, until: evening }] : []),
    { label: words().putBy.tomorrow, until: tomorrow },
    { label: words().putBy.monday, until: timeOnDay(now, zone, daysToMonday(now, zone), 9) },
  ];
  const putOwn = (): void => {
    const at = serverNow();
    const until = typed.trim()
      ? momentSaid(typed, at, zone, words().dayWords)
      : momentTyped(day, time, zone);
    if (until === null || until <= at || until - at > LONGEST_MS) setProblem(words().putBy.wrong);
    else props.put(until);
  };
  const write = (text: string): void => {
    setTyped(text);
    setProblem('');
  };
  // What was said last counts: picking a day takes back what was written.
  const picking = (set: (value: string) => void) => (value: string) => {
    set(value);
    write('');
  };
  return (
    <Sheet title={words().putBy.title} close={props.close}>
      <Button label={words().putBy.hour} onPress={() => props.put(serverNow() + HOUR_MS)} />
      {choices.map(({ label, until }) => (
        <Button key={label} label={label} onPress={() => props.put(until)} />
      ))}
      <Text kind="name">{words().putBy.own}</Text>
      <View style={styles.moment}>
        <MomentField
          kind="date"
          label={words().putBy.ownDay}
          value={day}
          min={dayOf(now, zone)}
          max={dayOf(now + LONGEST_MS, zone)}
          onChange={picking(setDay)}
        />
        <MomentField
          kind="time"
          label={words().putBy.ownTime}
          value={time}
          onChange={picking(setTime)}
        />
      </View>
      <Field
        label={words().putBy.said}
        more={words().putBy.saidMore}
        value={typed}
        onChangeText={write}
        maxLength={40}
        problem={problem}
        onSubmitEditing={putOwn}
      />
      <View>
        <Button look="main" label={words().putBy.set} onPress={putOwn} />
      </View>
    </Sheet>
  );
};

const styles = StyleSheet.create({ moment: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 } });
