import type { LateWay } from '@porch/core/promises';
import { minutesIn } from '@porch/core/when';
import { View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Problem, Section } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { Tick } from '../../../kit/fields/tick';
import { kitWords } from '../../../kit/words';
import { problemOf } from '../../../shell/session/problems';
import { usePromises, useSetPromises } from '../data/hours';
import { words } from '../words';

/** What visitors may expect: how fast an answer usually comes, when a note is due, and what happens when it is late. */
export const PromisesPart = ({ isFixed }: { isFixed: boolean }) => {
  const { data } = usePromises();
  const { mutate, error } = useSetPromises();
  if (!data || isFixed) return null;
  const said = words().promises;
  const { promises, usualMinutes, answers } = data;
  const set = (part: Partial<typeof promises>) => mutate({ ...promises, ...part });
  const grace = String(promises.graceMinutes);
  const graces = Object.entries(said.graces);
  const here = String(promises.hereMinutes);
  const heres = Object.entries(said.heres);
  const mailAfter = String(promises.mailAfterMinutes);
  const mails = Object.entries(said.mails);
  return (
    <Section title={said.title}>
      <View>
        <Tick
          label={said.usual}
          more={
            usualMinutes === null
              ? said.usualFew(answers)
              : said.usualNow(minutesIn(kitWords().locale, usualMinutes), answers)
          }
          isOn={promises.showsUsual}
          onChange={(showsUsual) => set({ showsUsual })}
        />
      </View>
      <Select
        label={said.grace}
        options={grace in said.graces ? graces : [...graces, [grace, grace]]}
        value={grace}
        onChange={(minutes) => set({ graceMinutes: Number(minutes) })}
      />
      <Select
        label={said.mail}
        options={mailAfter in said.mails ? mails : [...mails, [mailAfter, mailAfter]]}
        value={mailAfter}
        onChange={(minutes) => set({ mailAfterMinutes: Number(minutes) })}
      />
      <Select
        label={said.here}
        options={here in said.heres ? heres : [...heres, [here, here]]}
        value={here}
        onChange={(minutes) => set({ hereMinutes: Number(minutes) })}
      />
      <Choice
        label={said.late}
        options={Object.entries(said.lates) as [LateWay, string][]}
        value={promises.whenLate}
        onChange={(whenLate) => set({ whenLate })}
      />
      <Problem text={problemOf(error)} />
    </Section>
  );
};
