import type { Finding } from '@porch/core/writing';
import { type RefObject, useId } from 'react';
import { StyleSheet, type TextInput, View } from 'react-native';
import { FieldLabel } from '../../../kit/fields/field-label';
import { Problem } from '../../../kit/fields/form';
import { type Mark, MarkedInput } from '../../../kit/fields/marked-input';

const TALLEST = 420;

/** A field of several lines whose findings are marked in it. */
export const CheckedField = (props: {
  label: string;
  more?: string;
  field: RefObject<TextInput | null>;
  value: string;
  problem?: string;
  findings: readonly Finding[];
  /** What stands out besides. */
  gaps?: readonly { from: number; to: number }[];
  change: (text: string) => void;
}) => {
  const id = useId();
  const marks: Mark[] = [
    ...props.findings.map(({ from, to }): Mark => ({ from, to, look: 'wrong' })),
    ...(props.gaps ?? []).map(({ from, to }): Mark => ({ from, to, look: 'gap' })),
  ];
  return (
    <View style={styles.field}>
      <FieldLabel id={id} label={props.label} more={props.more} />
      <MarkedInput
        field={props.field}
        marks={marks}
        tallest={TALLEST}
        aria-labelledby={`${id}-label`}
        value={props.value}
        onChangeText={props.change}
        numberOfLines={4}
        spellCheck={false}
      />
      <Problem text={props.problem ?? ''} />
    </View>
  );
};

const styles = StyleSheet.create({
  field: { gap: 4 },
});
