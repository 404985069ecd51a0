import { Button } from '../press';
import { Text } from '../text';
import { Row } from './form';

interface Doing {
  label: string;
  isBusy?: boolean;
  do: () => void;
}

/** What is done with something that is being written: saved; its changes forgotten; taken away. `kept`: that it waits. */
export const SaveRow = (props: {
  save: Doing;
  /** Null where nothing is changed. */
  forget: (Doing & { kept: string }) | null;
  /** Null where it is not stored yet. */
  drop: Doing | null;
}) => {
  const { save, forget, drop } = props;
  return (
    <>
      <Row>
        <Button look="main" label={save.label} disabled={save.isBusy} onPress={save.do} />
        {forget ? <Button look="bare" label={forget.label} onPress={forget.do} /> : null}
        {drop ? (
          <Button
            look="bare"
            tone="brick"
            label={drop.label}
            disabled={drop.isBusy}
            onPress={drop.do}
          />
        ) : null}
      </Row>
      {forget ? (
        <Text kind="small" tone="slate">
          {forget.kept}
        </Text>
      ) : null}
    </>
  );
};
