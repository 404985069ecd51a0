import ICAL from 'ical.js';
import { type CalendarEvent, type Todo, toCalendar, toEventCalendar } from '.';

const now = Date.UTC(2026, 10, 12, 10);
const hour = 3_600_000;
const todo: Todo = {
  id: 'owed-00001@porch.example',
  title: 'Robin: pots; two, or three\\four',
  more: 'Line one\nLine two',
  url: 'https://porch.example/line/conversation-1',
  madeAt: now - hour,
  dueAt: now + hour,
  remindAt: now + hour / 2,
};

/** What another program reads of it: ical.js, a reader of RFC 5545. */
const read = (calendar: string) => {
  const component = new ICAL.Component(ICAL.parse(calendar));
  return component.getAllSubcomponents('vtodo').map((vtodo) => {
    const at = (name: string) =>
      (vtodo.getFirstPropertyValue(name) as ICAL.Time).toUnixTime() * 1_000;
    const valarm = vtodo.getFirstSubcomponent('valarm');
    return {
      id: vtodo.getFirstPropertyValue('uid'),
      title: vtodo.getFirstPropertyValue('summary'),
      more: vtodo.getFirstPropertyValue('description') ?? '',
      url: vtodo.getFirstPropertyValue('url') ?? '',
      madeAt: at('created'),
      dueAt: at('due'),
      remindAt: valarm
        ? (valarm.getFirstPropertyValue('trigger') as ICAL.Time).toUnixTime() * 1_000
        : null,
    };
  });
};

describe('follow-ups as a calendar (RFC 5545)', () => {
  it('are read back by a calendar program as they are', () => {
    const plain = { ...todo, id: 'owed-00002@porch.example', more: '', url: '', remindAt: null };
    expect(read(toCalendar('Quillfern', [todo, plain], now))).toEqual([todo, plain]);
  });

  it('have each sign before which RFC 5545 wants another with that (section 3.3.11)', () => {
    // A reader that takes more than is allowed would not notice.
    const calendar = toCalendar('Quillfern', [todo], now).replace(/\r\n /g, '');
    expect(calendar).toContain('SUMMARY:Robin: pots\\; two\\, or three\\\\four\r\n');
    expect(calendar).toContain('Line one\\nLine two');
  });

  it('have lines of at most 75 octets, cut within no character (section 3.1)', () => {
    const title = 'Grüße an Łucja 🌿 und die anderen, '.repeat(8);
    const calendar = toCalendar('Ż'.repeat(90), [{ ...todo, title }], now);
    for (const line of calendar.split('\r\n')) {
      expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
      expect(line).not.toContain('\uFFFD');
    }
    expect(read(calendar)[0]?.title).toBe(title);
  });

  it('let no text of a visitor become a line of its own (section 3.3.11)', () => {
    const nasty = 'x\r\nEND:VTODO\r\nBEGIN:VEVENT\u0000\u001b';
    const calendar = toCalendar('x', [{ ...todo, title: nasty, more: nasty }], now);
    expect(read(calendar)).toHaveLength(1);
    expect(calendar).not.toMatch(/^BEGIN:VEVENT/m);
    expect(read(calendar)[0]?.title).toBe('x\nEND:VTODO\nBEGIN:VEVENT  ');
  });

  it('are an empty calendar where nothing is owed', () => {
    expect(read(toCalendar('x', [], now))).toEqual([]);
  });
});

describe('free times as a calendar (RFC 5545)', () => {
  const repotting: CalendarEvent = {
    id: 'thing-00001.1@porch.example',
    title: 'Repotting; with Maren, at the bench',
    more: 'Bring the pot.\nAnd gloves.',
    place: 'The greenhouse, 4 Canal Row',
    url: 'https://quillfern.example/repotting',
    startsAt: now + hour,
    minutes: 90,
  };

  /** What ical.js reads of it. */
  const events = (calendar: string): CalendarEvent[] =>
    new ICAL.Component(ICAL.parse(calendar)).getAllSubcomponents('vevent').map((vevent) => {
      const { uid, summary, description, location, startDate, endDate } = new ICAL.Event(vevent);
      const startsAt = startDate.toUnixTime() * 1_000;
      return {
        id: uid,
        title: summary,
        more: description ?? '',
        place: location ?? '',
        url: String(vevent.getFirstPropertyValue('url') ?? ''),
        startsAt,
        minutes: (endDate.toUnixTime() * 1_000 - startsAt) / 60_000,
      };
    });

  it('are read back by a calendar program as they are, and block nobody’s day', () => {
    const bare = { ...repotting, id: '2@x', more: '', place: '', url: '', minutes: 0 };
    const calendar = toEventCalendar('Quillfern', [repotting, bare], now);
    expect(events(calendar)).toEqual([repotting, bare]);
    expect(calendar.match(/TRANSP:TRANSPARENT/g)).toHaveLength(2);
    expect(calendar.match(/STATUS:TENTATIVE/g)).toHaveLength(2);
  });

  it('let no words become a line of their own', () => {
    const nasty = 'x\r\nEND:VEVENT\r\nBEGIN:VTODO';
    const calendar = toEventCalendar(nasty, [{ ...repotting, title: nasty, place: nasty }], now);
    expect(events(calendar)).toHaveLength(1);
    expect(calendar).not.toMatch(/^BEGIN:VTODO/m);
  });
});
