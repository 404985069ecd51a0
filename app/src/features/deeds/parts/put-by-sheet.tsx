import { dayOf, daysToMonday, timeOnDay } from '@porch/core/hours';
import { View } from 'react-native';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { serverNow } from '../../../shell/live/store';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { words } from '../words';
import { useWhen } from './when-fields';

const HOUR_MS = 3_600_000;

/** Asks until when a conversation is put by. */
export const PutBySheet = (props: { put: (until: number) => void; close: () => void }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const evening = timeOnDay(now, zone, 0, 18);
  const tomorrow = timeOnDay(now, zone, 1, 9);
  const { fields, read } = useWhen({ day: dayOf(tomorrow, zone), time: '09:00' });
  const choices = [
    ...(evening > now ? [{ label: words().putBy.evening, until: evening }] : []),
    { label: words().putBy.tomorrow, until: tomorrow },
    { label: words().putBy.monday, until: timeOnDay(now, zone, daysToMonday(now, zone), 9) },
  ];
  const putOwn = (): void => {
    const until = read();
    if (until !== null) props.put(until);
  };
  return (
    <Sheet title={words().putBy.title} close={props.close}>
      <Button label={words().putBy.hour} onPress={() => props.put(serverNow() + HOUR_MS)} />
      {choices.map(({ label, until }) => (
        <Button key={label} label={label} onPress={() => props.put(until)} />
      ))}
      <Text kind="name">{words().putBy.own}</Text>
      {fields(putOwn)}
      <View>
        <Button look="main" label={words().putBy.set} onPress={putOwn} />
      </View>
    </Sheet>
  );
};
