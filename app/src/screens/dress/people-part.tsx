import { Choice } from '../../parts/choice';
import { Words } from '../../parts/words';
import { words } from '../../wording';
import type { Editing } from './editor';

const said = words.dress.people;

/** Who is shown at the door. */
export const PeoplePart = ({ dress, set }: Editing) => (
  <>
    <Choice
      label={said.who}
      options={[
        ['team', said.team],
        ['business', said.business],
      ]}
      value={dress.people}
      onChange={(people) => set({ ...dress, people })}
    />
    <Words kind="second" tone="slate">
      {said.more}
    </Words>
  </>
);
