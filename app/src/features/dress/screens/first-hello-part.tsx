import { FIRST_HELLO } from '@porch/core/greetings';
import { Row, Section } from '../../../kit/fields/form';
import { MomentField } from '../../../kit/fields/moment-field';
import { Tick } from '../../../kit/fields/tick';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { useGreetingCounts } from '../data/greeting-counts';
import { words } from '../words';
import type { Editing } from './editor';

const said = () => words().guestBook;

const weekdays = [0, 1, 2, 3, 4, 5, 6];

/** 0 is Monday. The first day of the year 2024 was one. */
const dayName = (day: number): string =>
  new Intl.DateTimeFormat(kitWords().locale, { weekday: 'short', timeZone: 'UTC' }).format(
    Date.UTC(2024, 0, 1 + day),
  );

const asTime = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

const asMinute = (time: string): number => {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return (hours * 60 + minutes) % (24 * 60) || 0;
};

/** The one automatic message while somebody is in: whether, on which days, at which times. */
export const FirstHello = ({ dress, set, look, doorId }: Editing) => {
  const { hello } = dress;
  const counts = useGreetingCounts(doorId).get(FIRST_HELLO);
  const change = (part: Partial<typeof hello>): void => {
    set({ ...dress, hello: { ...hello, ...part } });
    look({ lamp: 'lit', isOpen: true });
  };
  const days = hello.days.length > 0 ? hello.days : weekdays;
  const flip = (day: number, isOn: boolean): void => {
    const next = weekdays.filter((one) => (one === day ? isOn : days.includes(one)));
    // None of them would be no hello at all: that is said by the tick above.
    change({ days: next.length === weekdays.length || next.length === 0 ? [] : next });
  };
  return (
    <Section title={said().hello}>
      <Tick
        label={said().hello}
        more={said().helloMore}
        isOn={hello.isOn}
        onChange={(isOn) => change({ isOn })}
      />
      {hello.isOn ? (
        <>
          <Text kind="label">{said().helloDays}</Text>
          <Row>
            {weekdays.map((day) => (
              <Tick
                key={day}
                label={dayName(day)}
                isOn={days.includes(day)}
                onChange={(isOn) => flip(day, isOn)}
              />
            ))}
          </Row>
          <Row>
            <MomentField
              kind="time"
              label={said().helloFrom}
              value={asTime(hello.from)}
              onChange={(time) => change({ from: asMinute(time) })}
            />
            <MomentField
              kind="time"
              label={said().helloTo}
              value={asTime(hello.to)}
              onChange={(time) => change({ to: asMinute(time) })}
            />
          </Row>
          <Text kind="second" tone="slate">
            {hello.from === hello.to ? said().helloAllDay : said().helloTimes}
          </Text>
          <Text kind="second" tone="slate">
            {said().helloCounts(counts?.seen ?? 0, counts?.answered ?? 0)}
          </Text>
        </>
      ) : null}
    </Section>
  );
};
