import { useId } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from '../text';
import { corner, plain, text, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';

/**
 * A day ("2026-12-31") or a time ("09:00"), picked with the platform's own picker, which every phone draws as its
 * people know it; by keyboard its parts are typed one after the other.
 */
export const MomentField = (props: {
  kind: 'date' | 'time';
  label: string;
  value: string;
  /** The earliest and the latest day. */
  min?: string;
  max?: string;
  problem?: string;
  onChange: (value: string) => void;
}) => {
  const theme = useTheme();
  const id = useId();
  return (
    <View style={styles.field}>
      <Text kind="label" nativeID={`${id}-label`}>
        {props.label}
      </Text>
      <input
        type={props.kind}
        aria-labelledby={`${id}-label`}
        aria-invalid={props.problem ? true : undefined}
        aria-describedby={props.problem ? `${id}-problem` : undefined}
        value={props.value}
        min={props.min}
        max={props.max}
        onChange={(event) => props.onChange(event.currentTarget.value)}
        style={{
          minHeight: touch,
          boxSizing: 'border-box',
          padding: '8px 12px',
          border: `1px solid ${props.problem ? theme.brick : theme.edge}`,
          borderRadius: corner,
          color: theme.ink,
          backgroundColor: theme.linen,
          colorScheme: 'light dark',
          fontFamily: plain,
          fontSize: text.body,
          maxWidth: '100%',
        }}
      />
      {props.problem ? (
        <Text kind="second" tone="brick" role="alert" nativeID={`${id}-problem`}>
          {props.problem}
        </Text>
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({ field: { gap: 4, flexGrow: 1 } });
