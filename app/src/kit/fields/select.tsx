import { useId } from 'react';
import { StyleSheet, View } from 'react-native';
import { corner, plain, text, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { FieldLabel } from './field-label';

/** One of many: the browser's own list, which every phone draws as its people know it. */
export const Select = (props: {
  label: string;
  more?: string;
  options: readonly (readonly [string, string])[];
  value: string;
  isDisabled?: boolean;
  onChange: (value: string) => void;
}) => {
  const theme = useTheme();
  const id = useId();
  return (
    <View style={styles.field}>
      <FieldLabel id={id} label={props.label} more={props.more} />
      <select
        aria-labelledby={`${id}-label`}
        value={props.value}
        disabled={props.isDisabled}
        onChange={(event) => props.onChange(event.currentTarget.value)}
        style={{
          minHeight: touch,
          padding: '10px 12px',
          border: `1px solid ${theme.edge}`,
          borderRadius: corner,
          color: theme.ink,
          backgroundColor: theme.linen,
          fontFamily: plain,
          fontSize: text.body,
          maxWidth: '100%',
        }}
      >
        {props.options.map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    </View>
  );
};

const styles = StyleSheet.create({ field: { gap: 4 } });
