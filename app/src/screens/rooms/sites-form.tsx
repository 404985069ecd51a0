import type { Door } from '@porch/contract/team';
import { useState } from 'react';
import { useChangeDoor } from '../../data/house';
import { Field } from '../../parts/field';
import { Done, problemOf, Row } from '../../parts/form';
import { Button } from '../../parts/press';
import { Words } from '../../parts/words';
import { words } from '../../wording';

const said = words.door;

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
        label={said.sites}
        more={said.sitesMore}
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
        <Words kind="second" tone="ember">
          {said.sitesNone}
        </Words>
      ) : null}
      {isOwner ? (
        <Row>
          <Button
            label={words.business.save}
            disabled={isPending}
            onPress={() =>
              mutate(
                { sites: linesOf(sites) },
                { onSuccess: (saved) => setSites(saved.sites.join('\n')) },
              )
            }
          />
          {isSuccess ? <Done text={words.business.saved} /> : null}
        </Row>
      ) : null}
    </>
  );
};
