import { type ComponentProps, useState } from 'react';
import { Field } from './field';

/** A field that was just added: what is wrong with its being empty is said once somebody has been in it. */
export const FreshField = (props: ComponentProps<typeof Field>) => {
  const [isFresh, setFresh] = useState(props.value === '');
  return (
    <Field
      {...props}
      problem={isFresh ? '' : props.problem}
      onBlur={(event) => {
        setFresh(false);
        props.onBlur?.(event);
      }}
      onChangeText={(typed) => {
        setFresh(false);
        props.onChangeText?.(typed);
      }}
    />
  );
};
