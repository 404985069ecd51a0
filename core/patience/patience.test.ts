import { type ConversationState, emptyConversation } from '../conversation';
import {
  dueAt,
  fromLineMark,
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

describe('patience', () => {
  it('is two minutes for a visitor on the page, ten for any other (common practice)', () => {
    expect(dueAt(waiting({ isHere: true }))).toBe(start + 2 * 60_000);
    expect(dueAt(waiting())).toBe(start + 10 * 60_000);
  });

  it('burns down from one to nothing and stays late after that', () => {
    const at = (share: number) =>
      patienceOf(waiting({ isHere: true }), start + PATIENCE_HERE_MS * share);
    expect(at(0)).toMatchObject({ share: 1, isLate: false });
    expect(at(0.5)).toMatchObject({ share: 0.5, isLate: false });
    expect(at(1)).toMatchObject({ share: 0, isLate: true });
    expect(at(3)).toMatchObject({ share: 0, leftMs: -2 * PATIENCE_HERE_MS });
  });

  it('never shows more than whole when a clock runs behind', () => {
    expect(patienceOf(waiting(), start - 5_000)?.share).toBe(1);
  });

  it('is for nobody who was answered, left a note, or was set aside', () => {
    expect(patienceOf(waiting({ waitingSince: null }), start)).toBeNull();
    expect(patienceOf(waiting({ isNote: true }), start)).toBeNull();
    expect(patienceOf(waiting({ aside: 'put-by', putByUntil: start }), start)).toBeNull();
  });

  it('gives what came back by itself the longer patience, even with the visitor on the page', () => {
    const state = waiting({ cameBack: true, isHere: true });
    expect(dueAt(state)).toBe(start + PATIENCE_AWAY_MS);
  });
});

describe('the order of the line', () => {
  const order = (states: Record<string, ConversationState>) =>
    Object.entries(states)
      .sort(([, a], [, b]) => placeInLine(a) - placeInLine(b))
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
