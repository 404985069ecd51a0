import type { VisitorEntry } from '@porch/contract/visitor';
import {
  type Event,
  firstModel,
  type Model,
  merge,
  next,
  shownDetails,
  stateOf,
  unreadCount,
} from './model';

const entry = (seq: number, by: 'visitor' | 'team' = 'visitor'): VisitorEntry => ({
  seq,
  id: `message-${seq}`,
  at: seq * 1_000,
  text: `${seq}`,
  files: [],
  by,
  name: by === 'team' ? 'Maren' : '',
  face: null,
});

const after = (...events: Event[]): Model => events.reduce(next, firstModel);

const welcome = (entries: VisitorEntry[], continues = false): Event => ({
  type: 'heard',
  now: 1_000,
  message: {
    say: 'welcome',
    now: 3_601_000,
    lamp: { state: 'lit', until: null },
    usual: null,
    opens: [],
    entries,
    continues,
    hasOlder: false,
    reached: { hasSeq: 0, readSeq: 0 },
    details: { name: '', email: '', phone: '', own: {} },
    hasConsented: false,
    mails: true,
    seq: entries.at(-1)?.seq ?? 0,
    last: entries.at(-1)?.id ?? null,
  },
});

const queued = (id: string): Event => ({
  type: 'queue',
  action: {
    do: 'add',
    parcel: { id, lane: 'a', load: { do: 'say', text: id, files: [], page: null }, madeAt: 0 },
  },
});

describe('what a panel shows', () => {
  it('has each entry once and in order, whichever way and how often it came', () => {
    expect(
      merge([entry(1), entry(3)], [entry(3), entry(2), entry(1)]).map(({ seq }) => seq),
    ).toEqual([1, 2, 3]);
  });

  it('starts over from a welcome that does not continue, and goes on from one that does', () => {
    const known = after(welcome([entry(1), entry(2)]));
    expect(next(known, welcome([entry(3)], true)).entries).toHaveLength(3);
    expect(next(known, welcome([entry(9)])).entries.map(({ seq }) => seq)).toEqual([9]);
  });

  it('no longer shows as waiting what the server turns out to have', () => {
    const waiting = after(queued('message-1'), queued('message-2'));
    expect(waiting.queue).toHaveLength(2);
    expect(next(waiting, welcome([entry(1)])).queue.map(({ id }) => id)).toEqual(['message-2']);
  });

  it('keeps what was refused, with why', () => {
    const model = after(queued('message-1'), {
      type: 'refused',
      id: 'message-1',
      refusal: { code: 'too-large', limit: 5 },
    });
    expect(model.queue[0]?.state).toBe('failed');
    expect(model.refusals['message-1']).toEqual({ code: 'too-large', limit: 5 });
  });

  it('knows the server\u2019s time on a phone whose clock is an hour off', () => {
    expect(after(welcome([])).offsetMs).toBe(3_600_000);
  });

  it('never goes back from read to sent when news comes late', () => {
    const reached = (hasSeq: number, readSeq: number): Event => ({
      type: 'heard',
      now: 0,
      message: { say: 'reached', reached: { hasSeq, readSeq } },
    });
    const model = after(welcome([entry(1)]), reached(5, 5), reached(3, 2));
    expect(model.reached).toEqual({ hasSeq: 5, readSeq: 5 });
  });

  it('stops showing that somebody types once they have spoken', () => {
    const typing = after({ type: 'heard', now: 5, message: { say: 'typing', name: 'Maren' } });
    expect(typing.typing).toEqual({ name: 'Maren', at: 5 });
    const spoken = next(typing, {
      type: 'heard',
      now: 6,
      message: { say: 'entries', entries: [entry(4, 'team')], seq: 4, last: 'message-4' },
    });
    expect(spoken.typing).toBeNull();
  });
});

describe('how far a message has come', () => {
  it.each([
    [{ hasSeq: 0, readSeq: 0 }, 'sent'],
    [{ hasSeq: 7, readSeq: 0 }, 'arrived'],
    [{ hasSeq: 7, readSeq: 7 }, 'read'],
  ])('by %j is %s', (reached, state) => expect(stateOf(entry(7), reached)).toBe(state));

  it('counts as unread only answers behind what was read', () => {
    expect(unreadCount([entry(1, 'team'), entry(2), entry(3, 'team')], 1)).toBe(1);
  });
});

describe('what the visitor said of themselves', () => {
  const given = (id: string, email: string): Event => ({
    type: 'queue',
    action: { do: 'add', parcel: { id, lane: 'a', load: { do: 'details', email }, madeAt: 0 } },
  });

  it('is shown while it waits, over a welcome that does not know it yet, and once it has arrived', () => {
    const waiting = after(given('details-1', 'wren@post.example'), welcome([]));
    expect(shownDetails(waiting).email).toBe('wren@post.example');
    const arrived = next(waiting, { type: 'queue', action: { do: 'arrived', id: 'details-1' } });
    expect(arrived.queue).toEqual([]);
    expect(shownDetails(arrived).email).toBe('wren@post.example');
  });

  it('is not shown as known when it was refused', () => {
    const refused = after(given('details-1', 'no mail'), {
      type: 'refused',
      id: 'details-1',
      refusal: { code: 'email-not-understood' },
    });
    expect(shownDetails(refused).email).toBe('');
  });

  it('shows with what they were greeted until it is on the roll, or was put away', () => {
    const greeting = { id: 'greeting-0001', text: 'Morning', name: 'Tobias' };
    const greeted = after(welcome([entry(4)]), { type: 'greeted', greeting });
    expect(greeted.greeting).toEqual({ ...greeting, after: 4 });
    const heard = (said: VisitorEntry): Model =>
      next(greeted, {
        type: 'heard',
        now: 1_000,
        message: { say: 'entries', entries: [said], seq: said.seq, last: said.id },
      });
    expect(heard(entry(5)).greeting).toEqual(greeted.greeting);
    expect(heard({ ...entry(5), by: 'door', greeting: 'greeting-0002' }).greeting).not.toBeNull();
    const said = { ...entry(5), by: 'door' as const, greeting: 'greeting-0001' };
    expect(heard(said).greeting).toBeNull();
    expect(next(greeted, welcome([entry(4), said])).greeting).toBeNull();
    expect(next(greeted, { type: 'greeted', greeting: null }).greeting).toBeNull();
  });
});
