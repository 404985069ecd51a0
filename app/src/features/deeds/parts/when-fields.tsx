import { dayOf, momentTyped } from '@porch/core/hours';
import { momentSaid } from '@porch/core/moments';
import { type ReactNode, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { MomentField } from '../../../kit/fields/moment-field';
import { serverNow } from '../../../shell/live/store';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { words } from '../words';

const LONGEST_MS = 365 * 24 * 3_600_000;

/**
 * Asks for a moment to come: picked as a day and a time, or written as people say it. `read` gives it, or null where
 * it is none within a year, which is said beside the fields then.
 */
export const useWhen = (first: {
  day: string;
  time: string;
}): { fields: (done: () => void) => ReactNode; read: () => number | null } => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const [day, setDay] = useState(first.day);
  const [time, setTime] = useState(first.time);
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const write = (text: string): void => {
    setTyped(text);
    setProblem('');
  };
  // What was said last counts: picking a day takes back what was written.
  const picking = (set: (value: string) => void) => (value: string) => {
    set(value);
    write('');
  };
  const read = (): number | null => {
    const at = serverNow();
    const moment = typed.trim()
      ? momentSaid(typed, at, zone, words().dayWords)
      : momentTyped(day, time, zone);
    if (moment !== null && moment > at && moment - at <= LONGEST_MS) return moment;
    setProblem(words().putBy.wrong);
    return null;
  };
  const fields = (done: () => void) => (
    <>
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
        onSubmitEditing={done}
      />
    </>
  );
  return { fields, read };
};

const styles = StyleSheet.create({ moment: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 } });
