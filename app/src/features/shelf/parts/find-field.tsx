import { Field } from '../../../kit/fields/field';
import { words } from '../words';

/** Where one types what is sought on the shelf. */
export const FindField = (props: {
  value: string;
  change: (typed: string) => void;
  autoFocus?: boolean;
}) => (
  <Field
    label={words().find}
    value={props.value}
    onChangeText={props.change}
    maxLength={100}
    inputMode="search"
    autoCapitalize="none"
    autoFocus={props.autoFocus}
  />
);
