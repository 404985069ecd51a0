import { daysToMonday, momentTyped, timeOnDay } from '@porch/core/hours';
import { useState } from 'react';
import { View } from 'react-native';
import { useZone } from '../data/house';
import { Field } from '../parts/field';
import { Button } from '../parts/press';
import { Sheet } from '../parts/sheet';
import { useNow } from '../parts/use-now';
import { Words } from '../parts/words';
import { words } from '../wording';

const HOUR_MS = 3_600_000;
const LONGEST_MS = 365 * 24 * HOUR_MS;

/** Asks until when a conversation is put by. */
export const PutBySheet = (props: { put: (until: number) => void; close: () => void }) => {
  const zone = useZone();
  const now = useNow();
  const [day, setDay] = useState('');
  const [time, setTime] = useState('09:00');
  const [problem, setProblem] = useState('');
  const evening = timeOnDay(now, zone, 0, 18);
  const choices = [
    { label: words.putBy.hour, until: now + HOUR_MS },
    ...(evening > now ? [{ label: words.putBy.evening, until: evening }] : []),
    { label: words.putBy.tomorrow, until: timeOnDay(now, zone, 1, 9) },
    { label: words.putBy.monday, until: timeOnDay(now, zone, daysToMonday(now, zone), 9) },
  ];
  const putOwn = (): void => {
    const until = momentTyped(day, time, zone);
    if (until === null || until <= now || until - now > LONGEST_MS) setProblem(words.putBy.wrong);
    else props.put(until);
  };
  return (
    <Sheet title={words.putBy.title} close={props.close}>
      {choices.map(({ label, until }) => (
        <Button key={label} label={label} onPress={() => props.put(until)} />
      ))}
      <Words kind="name">{words.putBy.own}</Words>
      <Field label={words.putBy.ownDay} value={day} onChangeText={setDay} maxLength={10} />
      <Field
        label={words.putBy.ownTime}
        value={time}
        onChangeText={setTime}
        maxLength={5}
        problem={problem}
        onSubmitEditing={putOwn}
      />
      <View>
        <Button look="main" label={words.putBy.set} onPress={putOwn} />
      </View>
    </Sheet>
  );
};
