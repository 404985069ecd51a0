/** A time of the day by this device's clock, as a locale writes it. */
export const clockTime = (at: number, locale: string): string =>
  new Date(at).toLocaleTimeString(locale, { timeStyle: 'short' });
