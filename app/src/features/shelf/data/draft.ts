import { keep, kept } from '@porch/client/keeping';
import type { ShelfShown } from '@porch/contract/shelf';
import type { FileMention } from '@porch/core/conversation';
import { dayOf, minuteOfDay, momentTyped } from '@porch/core/hours';
import {
  newThing,
  priceFrom,
  SHELF_MINUTES_MOST,
  type ShelfKind,
  type ShelfThing,
} from '@porch/core/shelf';

const LAST_OF_DAY_MS = 59_999;

/** A free time as it is picked. */
export interface StartTyped {
  day: string;
  time: string;
}

/** Something on the shelf while it is written: its price as it is typed, its moments as they are picked. */
export interface ShelfDraft extends Omit<ShelfThing, 'price' | 'currency' | 'starts' | 'minutes'> {
  money: string;
  lastDay: string;
  starts: StartTyped[];
  minutes: string;
  picture: FileMention | null;
  /** On which it builds; 0: it is new. */
  revision: number;
}

const keyOf = (id: string): string => `porch:shelf-draft:${id}`;

const isDraft = (draft: unknown): draft is ShelfDraft =>
  typeof draft === 'object' && draft !== null && 'money' in draft && 'starts' in draft;

/** What is half written stays on this device until it is saved. */
export const shelfDrafts = {
  read: (id: string): ShelfDraft | null => {
    try {
      const draft: unknown = JSON.parse(kept(keyOf(id)) ?? 'null');
      return isDraft(draft) ? draft : null;
    } catch {
      return null;
    }
  },
  write: (id: string, draft: ShelfDraft): void => keep(keyOf(id), JSON.stringify(draft)),
  drop: (id: string): void => keep(keyOf(id), ''),
};

/** By this name a new one is written. */
export const NEW = 'new';

const timeOf = (at: number, zone: string): string => {
  const minute = minuteOfDay(at, zone);
  return [Math.floor(minute / 60), minute % 60]
    .map((part) => String(part).padStart(2, '0'))
    .join(':');
};

export const draftOf = (shown: ShelfShown, zone: string): ShelfDraft => {
  const { price, currency, starts, minutes, until } = shown;
  return {
    ...newThing(shown.kind),
    name: shown.name,
    text: shown.text,
    link: shown.link,
    sku: shown.sku,
    stock: shown.stock,
    code: shown.code,
    until,
    address: shown.address,
    hours: shown.hours,
    pictureUrl: shown.pictureUrl,
    money: price ? `${price} ${currency}` : '',
    lastDay: until === null ? '' : dayOf(until, zone),
    starts: starts.map((at) => ({ day: dayOf(at, zone), time: timeOf(at, zone) })),
    minutes: minutes ? String(minutes) : '',
    picture: shown.picture,
    revision: shown.revision,
  };
};

export const emptyDraft = (kind: ShelfKind): ShelfDraft => ({
  ...newThing(kind),
  money: '',
  lastDay: '',
  starts: kind === 'slots' ? [{ day: '', time: '' }] : [],
  minutes: '',
  picture: null,
  revision: 0,
});

/** What is no length of a time that is kept stays more than there may be, for the house to refuse. */
const minutesFrom = (typed: string): number => {
  const minutes = Math.round(Number(typed.trim()));
  return minutes >= 0 && minutes <= SHELF_MINUTES_MOST ? minutes : SHELF_MINUTES_MOST + 1;
};

/** What is written as it is kept; a price or a time that is none stays what it is, for the house to refuse. */
export const toThing = (
  { money, lastDay, starts, minutes, picture, revision, ...rest }: ShelfDraft,
  { zone, currency }: { zone: string; currency: string },
): ShelfThing => {
  const price = priceFrom(money, currency) ?? { price: money, currency };
  const isSameDay = rest.until !== null && dayOf(rest.until, zone) === lastDay;
  const end = lastDay ? momentTyped(lastDay, '23:59', zone) : null;
  return {
    ...newThing(rest.kind),
    ...rest,
    ...price,
    // A time of day that a table has said stays with its day.
    until: isSameDay ? rest.until : end === null ? null : end + LAST_OF_DAY_MS,
    starts: starts.flatMap(({ day, time }) =>
      day && time ? (momentTyped(day, time, zone) ?? []) : [],
    ),
    minutes: minutesFrom(minutes),
  };
};
