import { momentInWords } from '../../../kit/times';
import { useLive } from '../../../shell/live/store';
import { useAsTimeGoes } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { words } from '../words';

/** The way to the opening hours: what it is, and what they say now. */
export const useHoursWay = (): { title: string; more: string } => {
  const zone = useZone();
  const lamp = useLive((live) => live.lamp);
  const more = useAsTimeGoes((now) => {
    const said = words().hoursNow;
    if (!lamp?.hasHours) return lamp ? said.notSet : '';
    const at = lamp.isOpen ? lamp.shutsNext : lamp.opensNext;
    if (at === null) return lamp.isOpen ? said.always : said.never;
    const time = momentInWords(at, now, zone);
    return lamp.isOpen ? said.openUntil(time) : said.opensAt(time);
  });
  return { title: words().hours, more };
};
