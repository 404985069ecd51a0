import type { Spans } from '@porch/core/hours/opening';
import { spilled } from '@porch/core/hours/week';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { words } from '../words';
import { DayTrack } from './day-track';
import { spansInWords } from './in-words';
import { SpansSheet } from './spans-sheet';

const DAYS = 7;
const SCALE = [0, 6, 12, 18, 24];

/** The hours above the days, for whoever sees and points. */
const Scale = () => (
  <View aria-hidden style={styles.scale}>
    {SCALE.map((hour) => (
      <Text key={hour} kind="small" tone="slate" style={styles.hour}>
        {hour}
      </Text>
    ))}
  </View>
);

/** A week, drawn with a finger or set in exact times, a day at a time. */
export const WeekEditor = (props: {
  week: readonly Spans[];
  isFixed: boolean;
  onChange: (week: Spans[]) => void;
}) => {
  const { week, isFixed, onChange } = props;
  const [asked, setAsked] = useState<number | null>(null);
  const put = (spans: Spans, weekdays: readonly number[]): void =>
    onChange(week.map((one, weekday) => (weekdays.includes(weekday) ? spans : one)));
  return (
    <View role="list" aria-label={words().week} style={styles.week}>
      <Scale />
      {week.map((spans, weekday) => {
        const name = words().days[weekday] ?? '';
        const inWords = spansInWords(spans);
        const ask = () => setAsked(weekday);
        return (
          <View role="listitem" key={name}>
            <Pressable
              role="button"
              aria-label={words().change(name, inWords)}
              disabled={isFixed}
              onPress={ask}
              style={styles.name}
            >
              <Text kind="label" style={styles.day}>
                {name}
              </Text>
              <Text kind="second" tone={spans.length > 0 ? 'ink' : 'slate'} style={styles.spans}>
                {inWords}
              </Text>
            </Pressable>
            <DayTrack
              spans={spans}
              spill={spilled(week[(weekday + DAYS - 1) % DAYS] ?? [])}
              isFixed={isFixed}
              onDraw={(next) => put(next, [weekday])}
              onTap={ask}
            />
          </View>
        );
      })}
      {asked === null ? null : (
        <SpansSheet
          title={words().days[asked] ?? ''}
          spans={week[asked] ?? []}
          weekday={asked}
          close={() => setAsked(null)}
          take={(spans, weekdays) => {
            put(spans, weekdays);
            setAsked(null);
          }}
        />
      )}
    </View>
  );
};

const styles = StyleSheet.create({
  week: { gap: 8 },
  scale: { flexDirection: 'row', justifyContent: 'space-between' },
  hour: { fontVariant: ['tabular-nums'] },
  name: {
    minHeight: touch - 8,
    flexDirection: 'row',
    alignItems: 'center',
    flexWrap: 'wrap',
    gap: 8,
  },
  day: { minWidth: 96 },
  spans: { flexShrink: 1, fontVariant: ['tabular-nums'] },
});
