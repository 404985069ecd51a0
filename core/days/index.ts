const isDay = (year: number, month: number, day: number): boolean => {
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day && year >= 1970;
};

const written = (year: number, month: number, day: number): string | null =>
  isDay(year, month, day)
    ? [
        String(year).padStart(4, '0'),
        String(month).padStart(2, '0'),
        String(day).padStart(2, '0'),
      ].join('-')
    : null;

/** Where the month is written before the day. */
const MONTH_FIRST = new Set(['US', 'PH', 'FM', 'PW', 'MH']);

/**
 * A day as shops write it → YYYY-MM-DD; '' stays, what is none → null. ISO 8601 ("2026-12-01", with a time behind it
 * too), "1.12.2026", "01/12/2026": the month comes first only where the country writes so.
 */
export const dayFrom = (typed: string, country: string): string | null => {
  const text = typed.trim();
  if (text === '') return '';
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(text);
  if (iso) return written(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const other = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})$/.exec(text);
  if (!other) return null;
  const [first, second] = [Number(other[1]), Number(other[3])];
  const isMonthFirst = other[2] === '/' && MONTH_FIRST.has(country);
  return written(Number(other[4]), isMonthFirst ? first : second, isMonthFirst ? second : first);
};
