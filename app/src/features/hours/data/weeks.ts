import type { OpeningHours, Spans } from '@porch/core/hours/opening';

const workday: Spans = [{ from: 540, to: 1_050 }];
const allDay: Spans = [{ from: 0, to: 1_440 }];
const shut: Spans = [];

const hoursOf = (week: Spans[]): OpeningHours => ({ week, holidays: null, spells: [] });

/** Weeks to start from, as many businesses have them. */
export const usualWeeks = {
  workdays: hoursOf([workday, workday, workday, workday, workday, shut, shut]),
  daily: hoursOf(Array.from({ length: 7 }, () => workday)),
  always: hoursOf(Array.from({ length: 7 }, () => allDay)),
} as const;
export type UsualWeek = keyof typeof usualWeeks;
