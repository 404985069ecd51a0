import type { Door } from '@porch/contract/doors';
import { useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Done, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { problemOf } from '../../../shell/session/problems';
import { useChangeDoor } from '../data/doors';
import { words } from '../words';

const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** On which websites a door may stand. */
export const SitesForm = ({ door, isOwner }: { door: Door; isOwner: boolean }) => {
  const [sites, setSites] = useState(door.sites.join('\n'));
  const { mutate, error, isPending, isSuccess, reset } = useChangeDoor(door.id);
  return (
    <>
      <Field
        label={words().sites}
        more={words().sitesMore}
        value={sites}
        multiline
        numberOfLines={3}
        autoCapitalize="none"
        editable={isOwner}
        maxLength={4_000}
        problem={problemOf(error)}
        onChangeText={(text) => {
          setSites(text);
          reset();
        }}
      />
      {door.sites.length === 0 ? (
        <Text kind="second" tone="ember">
          {words().sitesNone}
        </Text>
      ) : null}
      {isOwner ? (
        <Row>
          <Button
            label={kitWords().save}
            disabled={isPending}
            onPress={() =>
              mutate(
                { sites: linesOf(sites) },
                { onSuccess: (saved) => setSites(saved.sites.join('\n')) },
              )
            }
          />
          {isSuccess ? <Done text={kitWords().saved} /> : null}
        </Row>
      ) : null}
    </>
  );
};
