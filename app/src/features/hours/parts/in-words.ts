import { DAY_MINUTES, type Spans } from '@porch/core/hours/opening';
import { clockText } from '@porch/core/hours/written';
import { kitWords } from '../../../kit/words';
import { words } from '../words';

/** 570 → "09:30"; past midnight it says so. */
const endInWords = (minute: number): string =>
  minute > DAY_MINUTES ? words().nextDay(clockText(minute - DAY_MINUTES)) : clockText(minute);

/** "09:00–12:30, 14:00–17:30" */
export const spansInWords = (spans: Spans): string => {
  const [only] = spans;
  if (!only) return words().shut;
  if (spans.length === 1 && only.from === 0 && only.to === DAY_MINUTES) return words().allDay;
  return spans.map(({ from, to }) => `${clockText(from)}–${endInWords(to)}`).join(', ');
};

/** "2026-12-24" → "Thu, 24 Dec 2026" */
export const dayInWords = (day: string): string =>
  new Intl.DateTimeFormat(kitWords().locale, {
    timeZone: 'UTC',
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  }).format(Date.parse(`${day}T12:00:00Z`));
