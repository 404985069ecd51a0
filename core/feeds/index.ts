/** Something to do, as a calendar has it. Moments are UTC epoch milliseconds. */
export interface Todo {
  id: string;
  title: string;
  more: string;
  url: string;
  madeAt: number;
  dueAt: number;
  /** When a calendar program reminds of it; null: it does not. */
  remindAt: number | null;
}

/** A content line is no longer than 75 octets (RFC 5545, 3.1). */
const LINE_OCTETS = 75;

/** "20261112T100000Z" (RFC 5545, 3.3.5, form 2) */
const moment = (at: number): string =>
  new Date(at).toISOString().replace(/\.\d+/, '').replace(/[-:]/g, '');

/** A value of type TEXT (RFC 5545, 3.3.11); what is no text at all is left out. */
const text = (value: string): string =>
  value
    .replace(/\r\n?/g, '\n')
    // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is taken out
    .replace(/[\u0000-\u0009\u000b-\u001f\u007f]/g, ' ')
    .replace(/[\\;,]/g, '\\$&')
    .replace(/\n/g, '\\n');

const octets = (part: string): number => new TextEncoder().encode(part).length;

/** A line cut into as many as are needed, never within a character. */
const folded = (line: string): string => {
  const lines: string[] = [];
  let part = '';
  for (const character of line) {
    if (octets(part + character) > LINE_OCTETS) {
      lines.push(part);
      part = ' ';
    }
    part += character;
  }
  return [...lines, part].join('\r\n');
};

const alarm = (title: string, at: number): string[] => [
  'BEGIN:VALARM',
  'ACTION:DISPLAY',
  `DESCRIPTION:${text(title)}`,
  `TRIGGER;VALUE=DATE-TIME:${moment(at)}`,
  'END:VALARM',
];

const task = (todo: Todo, now: number): string[] => [
  'BEGIN:VTODO',
  `UID:${text(todo.id)}`,
  `DTSTAMP:${moment(now)}`,
  `CREATED:${moment(todo.madeAt)}`,
  `DUE:${moment(todo.dueAt)}`,
  `SUMMARY:${text(todo.title)}`,
  ...(todo.more ? [`DESCRIPTION:${text(todo.more)}`] : []),
  ...(todo.url ? [`URL:${todo.url}`] : []),
  'STATUS:NEEDS-ACTION',
  ...(todo.remindAt === null ? [] : alarm(todo.title, todo.remindAt)),
  'END:VTODO',
];

/** Something that begins at a time, as a calendar has it. Moments are UTC epoch milliseconds. */
export interface CalendarEvent {
  id: string;
  title: string;
  more: string;
  place: string;
  url: string;
  startsAt: number;
  /** How long it is; 0: that is not said. */
  minutes: number;
}

const event = (one: CalendarEvent, now: number): string[] => [
  'BEGIN:VEVENT',
  `UID:${text(one.id)}`,
  `DTSTAMP:${moment(now)}`,
  `DTSTART:${moment(one.startsAt)}`,
  ...(one.minutes > 0 ? [`DURATION:PT${one.minutes}M`] : []),
  `SUMMARY:${text(one.title)}`,
  ...(one.more ? [`DESCRIPTION:${text(one.more)}`] : []),
  ...(one.place ? [`LOCATION:${text(one.place)}`] : []),
  ...(one.url ? [`URL:${one.url}`] : []),
  // Times to choose from: none of them is agreed on yet, and none blocks a day.
  'STATUS:TENTATIVE',
  'TRANSP:TRANSPARENT',
  'END:VEVENT',
];

const calendar = (what: string, name: string, parts: readonly string[][]): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    `PRODID:-//Hello Porch//${what}//EN`,
    'METHOD:PUBLISH',
    `X-WR-CALNAME:${text(name)}`,
    ...parts.flat(),
    'END:VCALENDAR',
    '',
  ]
    .map(folded)
    .join('\r\n');

/** Times to choose from as a calendar that programs read (RFC 5545: VEVENT). `ids` as in `toCalendar`. */
export const toEventCalendar = (
  name: string,
  events: readonly CalendarEvent[],
  now: number,
): string =>
  calendar(
    'Shelf',
    name,
    events.map((one) => event(one, now)),
  );

/**
 * Tasks as a calendar that programs read (RFC 5545: VTODO with VALARM). `ids` are unique in the world where their
 * part after the @ is the house's own.
 */
export const toCalendar = (name: string, todos: readonly Todo[], now: number): string =>
  calendar(
    'Follow-ups',
    name,
    todos.map((todo) => task(todo, now)),
  );
