import type { FileMention, ShelfSaid } from '../../conversation';
import { minuteOfDay } from '../../hours';
import { localeOf, minutesIn } from '../../when';
import { priceInWords } from '../price';
import type { ShelfThing } from '../thing';
import { TIME_MARK } from '../times';

export type ShelfText =
  | 'shelfIn'
  | 'shelfOut'
  | 'shelfToOrder'
  | 'shelfCode'
  | 'shelfUntil'
  | 'shelfRoute';

/** In whose words it is said: the texts of a door in a language, and by the business's own clocks. */
export interface ShelfVoice {
  language: string;
  /** ISO 3166, where the business is; empty: not known. */
  country: string;
  zone: string;
  now: number;
  say: (key: ShelfText, values?: Readonly<Record<string, string>>) => string;
}

const stockTexts = { in: 'shelfIn', out: 'shelfOut', 'to-order': 'shelfToOrder' } as const;

const DAY_LAST_MINUTE = 23 * 60 + 59;

/** A moment by the business's clocks: "Tuesday 1 December, 10:00"; of a day's last one the day. */
const dayAndTime = (at: number, { language, country, zone }: ShelfVoice): string => {
  const locale = localeOf(language, country);
  const day = new Intl.DateTimeFormat(locale, {
    timeZone: zone,
    weekday: 'long',
    day: 'numeric',
    month: 'long',
  }).format(at);
  if (minuteOfDay(at, zone) === DAY_LAST_MINUTE) return day;
  const time = new Intl.DateTimeFormat(locale, { timeZone: zone, timeStyle: 'short' }).format(at);
  return `${day}, ${time}`;
};

const linesOf = (thing: ShelfThing, voice: ShelfVoice): string[] => {
  const { say, language, now } = voice;
  switch (thing.kind) {
    case 'item':
      return [
        [
          priceInWords(thing.price, thing.currency, language),
          thing.stock && say(stockTexts[thing.stock]),
        ]
          .filter(Boolean)
          .join(' · '),
        thing.text,
      ];
    case 'offer':
      return [
        thing.text,
        thing.code && say('shelfCode', { code: thing.code }),
        thing.until === null ? '' : say('shelfUntil', { day: dayAndTime(thing.until, voice) }),
      ];
    case 'place':
      return [thing.address, thing.hours, thing.text];
    case 'page':
    case 'picture':
      return [thing.text];
    case 'slots':
      return [
        [thing.minutes ? minutesIn(language, thing.minutes) : '', thing.address]
          .filter(Boolean)
          .join(' · '),
        ...thing.starts
          .filter((at) => at > now)
          .map((at) => `${TIME_MARK}${dayAndTime(at, voice)}`),
        thing.text,
      ];
  }
};

/** Something of the shelf as it is said now, in a door's words. `files`: its picture, and a calendar of its times. */
export const toShelfSaid = (
  thing: ShelfThing & { id: string },
  files: FileMention[],
  voice: ShelfVoice,
): ShelfSaid => ({
  id: thing.id,
  kind: thing.kind,
  name: thing.name,
  lines: linesOf(thing, voice).filter(Boolean),
  link: thing.link,
  linkWords: thing.kind === 'place' && thing.link ? voice.say('shelfRoute') : '',
  files,
});
