import { Choice } from '../../../kit/fields/choice';
import { Text } from '../../../kit/text';
import { words } from '../words';
import type { Editing } from './editor';

const said = () => words().people;

/** Who is shown at the door. */
export const PeoplePart = ({ dress, set }: Editing) => (
  <>
    <Choice
      label={said().who}
      options={[
        ['team', said().team],
        ['business', said().business],
      ]}
      value={dress.people}
      onChange={(people) => set({ ...dress, people })}
    />
    <Text kind="second" tone="slate">
      {said().more}
    </Text>
  </>
);
