import { type Ref, useId } from 'react';
import { StyleSheet, TextInput, type TextInputProps, View } from 'react-native';
import { Text } from '../text';
import { corner, plain, text, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { FieldLabel } from './field-label';

interface Props extends TextInputProps {
  ref?: Ref<TextInput>;
  label: string;
  more?: string;
  problem?: string;
}

/** A labelled field, with what is wrong said beside it. */
export const Field = ({ label, more, problem, style, ...rest }: Props) => {
  const theme = useTheme();
  const id = useId();
  return (
    <View style={styles.field}>
      <FieldLabel id={id} label={label} more={more} />
      <TextInput
        aria-labelledby={`${id}-label`}
        {...(problem ? { 'aria-describedby': `${id}-problem`, 'aria-invalid': true } : {})}
        placeholderTextColor={theme.slate}
        {...rest}
        style={[
          styles.input,
          { color: theme.ink, backgroundColor: theme.linen, borderColor: theme.edge },
          problem ? { borderColor: theme.brick, borderWidth: 2 } : null,
          style,
        ]}
      />
      {problem ? (
        <Text kind="second" tone="brick" role="alert" nativeID={`${id}-problem`}>
          {problem}
        </Text>
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({
  field: { gap: 4 },
  input: {
    minHeight: touch,
    paddingHorizontal: 12,
    paddingVertical: 10,
    borderWidth: 1,
    borderRadius: corner,
    fontFamily: plain,
    fontSize: text.body,
  },
});
