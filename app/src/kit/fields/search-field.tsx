import { Field } from './field';

const SOUGHT_LONGEST = 100;

/** Where one types what is sought in a list beside it. */
export const SearchField = (props: {
  label: string;
  value: string;
  change: (typed: string) => void;
  autoFocus?: boolean;
}) => (
  <Field
    label={props.label}
    value={props.value}
    onChangeText={props.change}
    maxLength={SOUGHT_LONGEST}
    inputMode="search"
    autoCapitalize="none"
    autoFocus={props.autoFocus}
  />
);
