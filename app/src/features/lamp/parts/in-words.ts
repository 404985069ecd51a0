import type { TeamLamp } from '@porch/contract/lamp';
import { type LampState, lampAt } from '@porch/core/lamp';
import { momentInWords } from '../../../kit/times';
import { kitWords } from '../../../kit/words';
import { words } from '../words';

export interface LampSaid {
  state: LampState | undefined;
  /** "Answering until 17:30", "Back at 14:00", "Dark until Thu 09:00". */
  saying: string;
  /** What stands under it: that it is the porch light, and why it is as it is. */
  under: string;
}

const sayingOf = (
  { state, until, why }: Pick<TeamLamp, 'state' | 'until' | 'why'>,
  time: (at: number) => string,
): string => {
  if (state === 'lit') return until === null ? words().lit : words().litUntil(time(until));
  if (until !== null) {
    return state === 'back-soon' ? words().backAt(time(until)) : words().darkUntil(time(until));
  }
  return words().darkFor[why];
};

/** The light in words, for its team. */
export const lampInWords = (lamp: TeamLamp | null, now: number, zone: string): LampSaid => {
  if (!lamp) return { state: undefined, saying: kitWords().loading, under: words().label };
  const light = lampAt(lamp, now);
  const saying = sayingOf({ ...lamp, ...light }, (at) => momentInWords(at, now, zone));
  const under = lamp.ended
    ? words().ended[lamp.ended.state]
    : words().under(words().states[light.state], words().whys[lamp.why]);
  return { state: light.state, saying, under };
};
