import { DAY_MINUTES, type Span, type Spans, tidySpans } from '../opening';

/** What is drawn goes by quarters of an hour; exact times are picked. */
export const DRAWN_STEP_MINUTES = 15;

/** What a finger has taken hold of on a day: the beginning or the end of a span, or nothing yet. */
export type Hold = { kind: 'edge'; index: number; side: 'from' | 'to' } | { kind: 'new' };

const stepped = (minute: number): number =>
  Math.min(DAY_MINUTES, Math.max(0, Math.round(minute / DRAWN_STEP_MINUTES) * DRAWN_STEP_MINUTES));

/** What is within `reach` minutes of where a finger comes down; of several the nearest. */
export const holdAt = (spans: Spans, minute: number, reach: number): Hold => {
  const edges = spans.flatMap(({ from, to }, index) => [
    { index, side: 'from' as const, apart: Math.abs(from - minute) },
    // What goes on past midnight ends on no edge that stands on this day.
    ...(to > DAY_MINUTES ? [] : [{ index, side: 'to' as const, apart: Math.abs(to - minute) }]),
  ]);
  const [nearest] = edges
    .filter(({ apart }) => apart <= reach)
    .sort((one, other) => one.apart - other.apart);
  return nearest ? { kind: 'edge', index: nearest.index, side: nearest.side } : { kind: 'new' };
};

/** A span between two minutes in whichever order; null for one of no length. */
const between = (one: number, other: number): Span | null => {
  const [from, to] = [Math.min(one, other), Math.max(one, other)];
  return from === to ? null : { from, to };
};

/**
 * The spans of a day once a finger that took hold at `start` is at `end`, both minutes of the day. Drawn on nothing it
 * is a new span; an edge that is taken past the other edge turns the span round, and onto it takes the span away.
 */
export const drawn = (spans: Spans, hold: Hold, start: number, end: number): Span[] => {
  const at = stepped(end);
  if (hold.kind === 'new') {
    const made = between(stepped(start), at);
    return tidySpans(made ? [...spans, made] : spans);
  }
  const others = spans.filter((_span, index) => index !== hold.index);
  const held = spans[hold.index];
  if (!held) return tidySpans(spans);
  if (hold.side === 'from' && held.to > DAY_MINUTES) {
    return tidySpans([...others, { from: Math.min(at, DAY_MINUTES - 1), to: held.to }]);
  }
  const made = between(at, hold.side === 'from' ? held.to : held.from);
  return tidySpans(made ? [...others, made] : others);
};

/** How many minutes of a day are still those of the day before, which went on past midnight. */
export const spilled = (before: Spans): number =>
  Math.max(0, ...before.map(({ to }) => to - DAY_MINUTES));
