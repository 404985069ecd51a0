import { Field } from '../../../kit/fields/field';
import { words } from '../words';

/** By any word of a quick reply it is found. */
export const FindField = (props: { value: string; change: (typed: string) => void }) => (
  <Field
    label={words().search}
    value={props.value}
    onChangeText={props.change}
    maxLength={100}
    inputMode="search"
    autoCapitalize="none"
  />
);
