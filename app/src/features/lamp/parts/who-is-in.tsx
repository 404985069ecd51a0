import type { Out, TeamMember } from '@porch/contract/people';
import { timeOnDay } from '@porch/core/hours';
import { View } from 'react-native';
import { Problem } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { Text } from '../../../kit/text';
import { momentInWords } from '../../../kit/times';
import { serverNow } from '../../../shell/live/store';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useHouse, useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useSetOut } from '../data/lamp';
import { words } from '../words';

const HOUR_MS = 60 * MINUTE_MS;
const USUAL_HOUR = 9;

type Where = keyof ReturnType<typeof words>['whereabouts'];
const wheres: readonly Where[] = ['in', 'hour', 'tomorrow', 'out'];

const Whereabouts = (props: {
  member: TeamMember;
  isMe: boolean;
  mayChange: boolean;
  opensTomorrow: number | null;
}) => {
  const { member, isMe, mayChange } = props;
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const { mutate, error } = useSetOut();
  const { out } = member;
  const outOf = (where: Where): Out | null => {
    if (where === 'in') return null;
    if (where === 'out') return { until: null };
    if (where === 'hour') return { until: serverNow() + HOUR_MS };
    return { until: props.opensTomorrow ?? timeOnDay(serverNow(), zone, 1, USUAL_HOUR) };
  };
  // A time that was said before stands among the choices as it is.
  const said = out?.until ? words().outUntil(momentInWords(out.until, now, zone)) : null;
  const options = wheres.map((where) => [where as string, words().whereabouts[where]] as const);
  return (
    <>
      <Select
        label={isMe ? words().you(member.name) : member.name}
        options={said ? [...options, ['said', said]] : options}
        value={said ? 'said' : out ? 'out' : 'in'}
        isDisabled={!mayChange}
        onChange={(where) => {
          if (where !== 'said') mutate({ id: member.id, out: outOf(where as Where) });
        }}
      />
      <Problem text={problemOf(error)} />
    </>
  );
};

/** Who of the team is in; everybody says it of themselves, an owner of all. */
export const WhoIsIn = ({ opensTomorrow }: { opensTomorrow: number | null }) => {
  const { data: house } = useHouse();
  const team = (house?.team ?? []).filter(({ hasLeft }) => !hasLeft);
  const me = house?.me;
  if (!me) return null;
  return (
    <View role="group" aria-label={words().people} style={{ gap: 8 }}>
      <Text kind="name" role="heading" aria-level={3}>
        {words().people}
      </Text>
      <Text kind="second" tone="slate">
        {words().peopleMore}
      </Text>
      {team.map((member) => (
        <Whereabouts
          key={member.id}
          member={member}
          isMe={member.id === me.id}
          mayChange={member.id === me.id || me.role === 'owner'}
          opensTomorrow={opensTomorrow}
        />
      ))}
    </View>
  );
};
