import type { Owed } from '@porch/core/conversation';
import { dayOf, minuteOfDay, timeOnDay } from '@porch/core/hours';
import { OWED_LONGEST } from '@porch/core/promises';
import { useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Row } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useHouse, useZone } from '../../../shell/session/house';
import { words } from '../words';
import { useWhen } from './when-fields';

const USUAL_HOUR = 9;

const timeText = (minute: number): string =>
  [Math.floor(minute / 60), minute % 60].map((part) => String(part).padStart(2, '0')).join(':');

/** Asks what is owed to somebody, by when, and whose it is. */
export const OweSheet = (props: {
  title: string;
  /** As it was; null: it is new. */
  known: Owed | null;
  save: (owed: Owed) => void;
  close: () => void;
}) => {
  const { known } = props;
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const team = (useHouse().data?.team ?? []).filter(({ hasLeft }) => !hasLeft);
  const [what, setWhat] = useState(known?.what ?? '');
  const [whose, setWhose] = useState(known?.whose ?? '');
  const [rings, setRings] = useState(known ? known.remindAt !== null : true);
  const inDays = (days: number): number => timeOnDay(now, zone, days, USUAL_HOUR);
  const first = known && known.dueAt > now ? known.dueAt : inDays(1);
  const { fields, read } = useWhen({
    day: dayOf(first, zone),
    time: timeText(minuteOfDay(first, zone)),
  });
  const said = words().owe;
  const saveAt = (dueAt: number | null): void => {
    if (dueAt === null) return;
    props.save({
      what: what.trim(),
      dueAt,
      remindAt: rings ? dueAt : null,
      whose: whose || null,
    });
  };
  const saveOwn = (): void => saveAt(read());
  return (
    <Sheet title={props.title} close={props.close}>
      <Field
        label={said.what}
        more={said.whatMore}
        value={what}
        maxLength={OWED_LONGEST}
        onChangeText={setWhat}
      />
      <Select
        label={said.whose}
        options={[['', said.anybody], ...team.map(({ id, name }) => [id, name] as const)]}
        value={whose}
        onChange={setWhose}
      />
      <Tick label={said.ring} isOn={rings} onChange={setRings} />
      <Text kind="name">{said.when}</Text>
      <Row>
        <Button label={said.tomorrow} onPress={() => saveAt(inDays(1))} />
        <Button label={said.week} onPress={() => saveAt(inDays(7))} />
      </Row>
      {fields(saveOwn)}
      <Button look="main" label={said.save} onPress={saveOwn} />
    </Sheet>
  );
};
