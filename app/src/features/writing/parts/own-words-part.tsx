import { useState } from 'react';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { LinesField } from '../../../kit/fields/lines-field';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { problemOf } from '../../../shell/session/problems';
import { useOwnWords, useSetOwnWords } from '../data/own-words';
import { words } from '../words';

/** The business's own words, as a list. */
export const OwnWordsPart = () => {
  const { data } = useOwnWords();
  const set = useSetOwnWords();
  const [changed, setChanged] = useState<string[] | null>(null);
  const said = words().ownWords;
  const known = data?.words ?? [];
  const shown = changed ?? known;
  const save = (): void => {
    const add = shown.map((word) => word.trim()).filter((word) => !known.includes(word));
    const drop = known.filter((word) => !shown.includes(word));
    set.mutate({ add, drop }, { onSuccess: () => setChanged(null) });
  };
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      <LinesField label={said.label} lines={shown} onChangeLines={setChanged} />
      {changed ? (
        <Row>
          <Button label={said.save} disabled={set.isPending} onPress={save} />
        </Row>
      ) : null}
      {set.isSuccess && !changed ? <Done text={said.saved} /> : null}
      <Problem text={problemOf(set.error)} />
    </Section>
  );
};
