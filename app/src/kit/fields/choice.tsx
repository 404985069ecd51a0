import { Pressable, StyleSheet, View } from 'react-native';
import { byArrows } from '../by-arrows';
import { bySpace } from '../by-space';
import { Text } from '../text';
import { corner, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';

/** One of a few: every choice in sight, the chosen one inked. */
export const Choice = <Value extends string>(props: {
  label: string;
  options: readonly (readonly [Value, string])[];
  value: Value;
  onChange: (value: Value) => void;
  isLabelHidden?: boolean;
}) => {
  const theme = useTheme();
  const { options } = props;
  const chosenAt = options.findIndex(([value]) => value === props.value);
  const chooseAt = (at: number): void => {
    const option = options[at];
    if (option) props.onChange(option[0]);
  };
  return (
    <View role="radiogroup" aria-label={props.label} style={styles.group}>
      {props.isLabelHidden ? null : <Text kind="label">{props.label}</Text>}
      <View style={styles.row}>
        {options.map(([value, label], at) => {
          const isChosen = at === chosenAt;
          return (
            <Pressable
              key={value}
              role="radio"
              aria-checked={isChosen}
              onPress={() => props.onChange(value)}
              {...bySpace(() => props.onChange(value))}
              {...byArrows(at, chosenAt, options.length, chooseAt)}
              style={[
                styles.option,
                { borderColor: isChosen ? theme.ink : theme.edge },
                isChosen ? { backgroundColor: theme.ink } : null,
              ]}
            >
              <Text kind="label" tone={isChosen ? 'onInk' : 'ink'}>
                {label}
              </Text>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
};

const styles = StyleSheet.create({
  group: { gap: 6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  option: {
    minHeight: touch,
    justifyContent: 'center',
    paddingHorizontal: 14,
    borderWidth: 2,
    borderRadius: corner,
  },
});
