/** A day in words, whatever the zone: "Tuesday 1 December". */
export const dayInWords = (day: string, language: string): string =>
  day === ''
    ? ''
    : // Of two English ways to write a day nobody can misread this one.
      new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, {
        weekday: 'long',
        day: 'numeric',
        month: 'long',
        timeZone: 'UTC',
      }).format(Date.parse(`${day}T12:00:00Z`));
