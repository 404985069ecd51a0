import { Text } from '../text';

/** What stands above a field: its label (by `${id}-label`), and a line about it. */
export const FieldLabel = (props: { id: string; label: string; more?: string }) => (
  <>
    <Text kind="label" nativeID={`${props.id}-label`}>
      {props.label}
    </Text>
    {props.more ? (
      <Text kind="second" tone="slate" nativeID={`${props.id}-more`}>
        {props.more}
      </Text>
    ) : null}
  </>
);
