import { type ConversationState, emptyConversation } from '../conversation';
import { openingWhile, scheduleOf } from '../hours/opening';
import {
  dueAt,
  fromLineMark,
  lowAt,
  NOTE_GRACE_MS,
  PATIENCE_AWAY_MS,
  PATIENCE_HERE_MS,
  patienceOf,
  placeInLine,
  toLineMark,
} from '.';

const start = 1_000_000;

const waiting = (more: Partial<ConversationState> = {}): ConversationState => ({
  ...emptyConversation,
  waitingSince: start,
  lastAt: start,
  ...more,
});

const always = openingWhile(null);

describe('patience', () => {
  it('is two minutes for a visitor on the page, ten for any other (common practice)', () => {
    expect(dueAt(waiting({ isHere: true }), always)).toBe(start + 2 * 60_000);
    expect(dueAt(waiting(), always)).toBe(start + 10 * 60_000);
  });

  it('burns down from one to nothing and stays late after that', () => {
    const at = (share: number) =>
      patienceOf(
        waiting({ isHere: true }),
        start + PATIENCE_HERE_MS,
        start + PATIENCE_HERE_MS * share,
      );
    expect(at(0)).toMatchObject({ share: 1, isLate: false });
    expect(at(0.5)).toMatchObject({ share: 0.5, isLate: false });
    expect(at(1)).toMatchObject({ share: 0, isLate: true });
    expect(at(3)).toMatchObject({ share: 0, leftMs: -2 * PATIENCE_HERE_MS });
  });

  it('never shows more than whole when a clock runs behind', () => {
    expect(patienceOf(waiting(), start + PATIENCE_AWAY_MS, start - 5_000)?.share).toBe(1);
  });

  it('is for nobody who was answered, left a note, or was set aside', () => {
    const due = start + PATIENCE_AWAY_MS;
    expect(patienceOf(waiting({ waitingSince: null }), null, start)).toBeNull();
    expect(patienceOf(waiting({ isNote: true }), due, start)).toBeNull();
    expect(patienceOf(waiting({ aside: 'put-by', putByUntil: start }), due, start)).toBeNull();
  });

  it('gives what came back by itself the longer patience, even with the visitor on the page', () => {
    const state = waiting({ cameBack: true, isHere: true });
    expect(dueAt(state, always)).toBe(start + PATIENCE_AWAY_MS);
  });
});

describe('patience where it is not always open', () => {
  const day = [{ from: 540, to: 1_050 }];
  const hours = { week: [day, day, day, day, day, [], []], holidays: null, spells: [] };
  const opening = openingWhile(scheduleOf(hours, 'Europe/London', []));
  const minute = 60_000;
  /** November 2026 in London, whose 13th is a Friday. */
  const at = (date: number, hour: number, minutes: number): number =>
    Date.UTC(2026, 10, date, hour, minutes);

  it('counts open minutes only, over a closing and a weekend', () => {
    const late = waiting({ waitingSince: at(13, 17, 26) });
    expect(dueAt(late, opening)).toBe(at(16, 9, 6));
    expect(lowAt(late, opening)).toBe(at(16, 9, 3) + 0.5 * minute);
    expect(dueAt(waiting({ waitingSince: at(13, 17, 26), isHere: true }), opening)).toBe(
      at(13, 17, 28),
    );
  });

  it('gives a note until a grace after the next opening', () => {
    const note = waiting({ waitingSince: at(12, 22, 0), isNote: true });
    expect(dueAt(note, opening)).toBe(at(13, 9, 0) + NOTE_GRACE_MS);
    expect(dueAt(note, opening, 5 * minute)).toBe(at(13, 9, 5));
  });

  it('runs as if it were open where no opening is in sight', () => {
    const never = openingWhile(
      scheduleOf({ ...hours, week: [[], [], [], [], [], [], []] }, 'UTC', []),
    );
    expect(dueAt(waiting(), never)).toBe(start + PATIENCE_AWAY_MS);
    expect(lowAt(waiting(), never)).toBe(start + PATIENCE_AWAY_MS * 0.75);
  });
});

describe('the order of the line', () => {
  const order = (states: Record<string, ConversationState>) =>
    Object.entries(states)
      .sort(([, a], [, b]) => placeInLine(a, dueAt(a, always)) - placeInLine(b, dueAt(b, always)))
      .map(([name]) => name);

  it('puts first whose patience runs out first, not who wrote first', () => {
    expect(
      order({
        away: waiting(),
        'here, a minute later': waiting({ isHere: true, waitingSince: start + 60_000 }),
      }),
    ).toEqual(['here, a minute later', 'away']);
  });

  it('puts the oldest note, the newest answer and the soonest return first', () => {
    const note = (at: number) => waiting({ isNote: true, waitingSince: at });
    expect(order({ new: note(9), old: note(5) })).toEqual(['old', 'new']);
    const answered = (at: number) => waiting({ waitingSince: null, lastAt: at });
    expect(order({ old: answered(5), new: answered(9) })).toEqual(['new', 'old']);
    const putBy = (until: number) => waiting({ aside: 'put-by', putByUntil: until });
    expect(order({ later: putBy(9), sooner: putBy(5) })).toEqual(['sooner', 'later']);
  });
});

describe('the mark of a row, by which the rows behind it are asked for', () => {
  it('gives back where the row stands', () => {
    for (const key of [
      { place: 1_763_990_000_000, id: 'talk-1' },
      { place: -1_763_990_000_000, id: 'a_b-c' },
      { place: 0, id: 'x.y' },
    ]) {
      expect(fromLineMark(toLineMark(key))).toEqual(key);
    }
  });

  it('marks nothing when it is nonsense', () => {
    for (const mark of ['', '.', 'talk-1', '.talk-1', 'x.talk-1', '1e99.talk-1']) {
      expect(fromLineMark(mark)).toBeNull();
    }
  });
});
